/** Mails to those who work with Mailbag, in the language of whoever has them sent (ISO 639-1); one that is not spoken, or none: English. */
interface Mail {
  subject: string;
  text: string;
}
interface Words {
  code: (code: string, address: string, minutes: number) => Mail;
  invitation: (from: string, name: string, address: string) => Mail;
}

const languages: Record<'en' | 'de', Words> = {
  en: {
    code: (code, address, minutes) => ({
      subject: `${code} is your code for Mailbag`,
      text: `The code ${code.slice(0, 3)} ${code.slice(3)} confirms that mail from ${address} is sent with your consent.\n\nIt is valid for ${minutes} minutes. If you did not ask for it, do nothing.`,
    }),
    invitation: (from, name, address) => ({
      subject: `${from} asks you to work with Mailbag`,
      text: `Dear ${name},\n\n${from} has made an account for you in Mailbag. Choose a password here to begin:\n\n${address}\n\nThe invitation is valid for seven days.`,
    }),
  },
  de: {
    code: (code, address, minutes) => ({
      subject: `${code} ist Ihr Code für Mailbag`,
      text: `Der Code ${code.slice(0, 3)} ${code.slice(3)} bestätigt, dass E-Mails von ${address} mit Ihrem Einverständnis gesendet werden.\n\nEr gilt ${minutes} Minuten. Wenn Sie ihn nicht angefordert haben, tun Sie nichts.`,
    }),
    invitation: (from, name, address) => ({
      subject: `${from} lädt Sie zu Mailbag ein`,
      text: `Guten Tag ${name},\n\n${from} hat in Mailbag ein Konto für Sie angelegt. Wählen Sie hier ein Passwort, um zu beginnen:\n\n${address}\n\nDie Einladung gilt sieben Tage.`,
    }),
  },
};

export const ownMailWords = (language: string): Words => (language === 'de' ? languages.de : languages.en);
