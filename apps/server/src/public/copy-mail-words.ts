interface Words {
  codeSubject: (code: string) => string;
  codeText: (code: string, minutes: number) => string;
  copiesSubject: (title: string) => string;
  copiesText: (title: string, from: string) => string;
}

/** What visitors are mailed who have their copies sent on, in the languages of the pages. Nothing that they typed stands in it but their confirmed address. */
const languages: Readonly<Record<string, Words>> = {
  en: {
    codeSubject: (code) => `${code} is your code`,
    codeText: (code, minutes) =>
      `The code ${code} shows that this address is yours.\n\nIt holds for ${minutes} minutes. If you did not ask for it, do nothing.`,
    copiesSubject: (title) => `Copies of: ${title}`,
    copiesText: (title, from) => `The completed copies of “${title}” are attached. They were sent on by ${from}.`,
  },
  de: {
    codeSubject: (code) => `${code} ist Ihr Code`,
    codeText: (code, minutes) =>
      `Der Code ${code} zeigt, dass diese Adresse Ihnen gehört.\n\nEr gilt ${minutes} Minuten. Wenn Sie ihn nicht angefordert haben, tun Sie nichts.`,
    copiesSubject: (title) => `Kopien von: ${title}`,
    copiesText: (title, from) => `Die ausgefüllten Kopien von „${title}“ liegen bei. Weitergesandt von ${from}.`,
  },
  fr: {
    codeSubject: (code) => `${code} est votre code`,
    codeText: (code, minutes) =>
      `Le code ${code} montre que cette adresse est la vôtre.\n\nIl est valable ${minutes} minutes. Si vous ne l’avez pas demandé, ne faites rien.`,
    copiesSubject: (title) => `Copies de : ${title}`,
    copiesText: (title, from) => `Les copies remplies de « ${title} » sont jointes. Transmises par ${from}.`,
  },
  es: {
    codeSubject: (code) => `${code} es su código`,
    codeText: (code, minutes) =>
      `El código ${code} muestra que esta dirección es suya.\n\nVale ${minutes} minutos. Si no lo ha pedido, no haga nada.`,
    copiesSubject: (title) => `Copias de: ${title}`,
    copiesText: (title, from) => `Se adjuntan las copias rellenadas de «${title}». Las envía ${from}.`,
  },
  pl: {
    codeSubject: (code) => `${code} to Twój kod`,
    codeText: (code, minutes) =>
      `Kod ${code} potwierdza, że ten adres należy do Ciebie.\n\nJest ważny ${minutes} minut. Jeśli nie prosisz o ten kod, nic nie rób.`,
    copiesSubject: (title) => `Kopie: ${title}`,
    copiesText: (title, from) => `W załączeniu wypełnione kopie „${title}”. Przesyła je ${from}.`,
  },
  uk: {
    codeSubject: (code) => `${code} — ваш код`,
    codeText: (code, minutes) =>
      `Код ${code} підтверджує, що ця адреса ваша.\n\nВін дійсний ${minutes} хвилин. Якщо ви його не просили, нічого не робіть.`,
    copiesSubject: (title) => `Копії: ${title}`,
    copiesText: (title, from) => `Заповнені копії «${title}» додано. Їх пересилає ${from}.`,
  },
  ar: {
    codeSubject: (code) => `${code} هو رمزك`,
    codeText: (code, minutes) => `الرمز ${code} يُظهر أن هذا العنوان لك.\n\nهو صالح لمدة ${minutes} دقيقة. إن لم تطلبه فلا تفعل شيئًا.`,
    copiesSubject: (title) => `نسخ من: ${title}`,
    copiesText: (title, from) => `النسخ المملوءة من «${title}» مرفقة. أرسلها ${from}.`,
  },
};

const wordsIn = (language: string): Words => languages[language.slice(0, 2)] ?? languages['en']!;
const oneLine = (title: string): string => title.split(/\s/).filter(Boolean).join(' ').slice(0, 150);

/** @param language BCP 47 */
export function codeMail(language: string, code: string, minutes: number): { subject: string; text: string } {
  const words = wordsIn(language);
  return { subject: words.codeSubject(code), text: words.codeText(code, minutes) };
}
/** @param language BCP 47 @param title of the page @param from the confirmed address of whoever has them sent on */
export function copiesMail(language: string, title: string, from: string): { subject: string; text: string } {
  const words = wordsIn(language);
  return { subject: words.copiesSubject(oneLine(title)), text: words.copiesText(oneLine(title), from) };
}
