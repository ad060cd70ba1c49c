/** The message with the link by which a visitor goes on, in the languages of the pages. */
const messages: Readonly<Record<string, (title: string, link: string, days: number) => { subject: string; text: string }>> = {
  en: (title, link, days) => ({
    subject: `Go on with: ${title}`,
    text: `You can go on with “${title}” where you stopped:\n\n${link}\n\nThe link holds for ${days} ${days === 1 ? 'day' : 'days'}. Whoever has it sees what you have answered; do not pass it on. If you did not ask for it, do nothing.`,
  }),
  de: (title, link, days) => ({
    subject: `Weitermachen mit: ${title}`,
    text: `Sie können mit „${title}“ weitermachen, wo Sie aufgehört haben:\n\n${link}\n\nDer Link gilt ${days === 1 ? 'einen Tag' : `${days} Tage`}. Wer ihn hat, sieht Ihre bisherigen Antworten; geben Sie ihn nicht weiter. Wenn Sie ihn nicht angefordert haben, tun Sie nichts.`,
  }),
  fr: (title, link, days) => ({
    subject: `Reprendre : ${title}`,
    text: `Vous pouvez reprendre « ${title} » là où vous vous êtes arrêté :\n\n${link}\n\nLe lien est valable ${days} ${days === 1 ? 'jour' : 'jours'}. Quiconque l’a voit vos réponses ; ne le transmettez pas. Si vous ne l’avez pas demandé, ne faites rien.`,
  }),
  es: (title, link, days) => ({
    subject: `Continuar: ${title}`,
    text: `Puede continuar con «${title}» donde lo dejó:\n\n${link}\n\nEl enlace vale ${days} ${days === 1 ? 'día' : 'días'}. Quien lo tenga ve sus respuestas; no lo pase a nadie. Si no lo ha pedido, no haga nada.`,
  }),
  pl: (title, link, days) => ({
    subject: `Ciąg dalszy: ${title}`,
    text: `Możesz kontynuować „${title}” od miejsca przerwania:\n\n${link}\n\nLink jest ważny ${days} ${days === 1 ? 'dzień' : 'dni'}. Kto go ma, widzi Twoje odpowiedzi; nie przekazuj go dalej. Jeśli nie prosisz o ten link, nic nie rób.`,
  }),
  uk: (title, link, days) => ({
    subject: `Продовжити: ${title}`,
    text: `Ви можете продовжити «${title}» з місця, де зупинилися:\n\n${link}\n\nПосилання дійсне днів: ${days}. Хто його має, бачить ваші відповіді; не передавайте його. Якщо ви його не просили, нічого не робіть.`,
  }),
  ar: (title, link, days) => ({
    subject: `متابعة: ${title}`,
    text: `يمكنك متابعة «${title}» من حيث توقفت:\n\n${link}\n\nالرابط صالح لعدد من الأيام: ${days}. من يملكه يرى إجاباتك؛ لا تعطه لأحد. إن لم تطلبه فلا تفعل شيئًا.`,
  }),
};

/** @param language BCP 47 @param title of the page, one line of it */
export function visitMail(language: string, title: string, link: string, days: number): { subject: string; text: string } {
  const own = messages[language.slice(0, 2)] ?? messages['en']!;
  return own(title.split(/\s/).filter(Boolean).join(' ').slice(0, 150), link, days);
}
