/** What the words at a box ask for. */
export type Meaning = 'signature' | 'date' | 'e-mail' | 'telephone' | 'postal code' | 'IBAN' | 'amount' | 'number' | 'image';

/** Words of forms in the languages of Europe, whole or as beginnings (common practice, no source); the first that fits counts. */
const WORDS: readonly [Meaning, RegExp][] = [
  [
    'date',
    /\b(?:signed|payment|instalment|due|valid|effective|starting|beginning|ending|expires?|gültig|unterschrieben) (?:on|from|until|till|ab|bis|am)\)?$|\b(?:un)?til\)?$/,
  ],
  ['IBAN', /\biban\b/],
  ['e-mail', /\be-?mails?\b|\bemail|correo electr|courriel|adresse mél|posta elettronica|\be-?pošta|\be-?post\b|البريد الإلكتروني/],
  [
    'signature',
    /\bsign(?:ed|ature|atures|atur)?\b(?! date)|unterschrift|unterzeichn|\bfirma\b(?!name)|assinatura|\bhandtekening|underskrift|allekirjoitus|\bpodpis|\baláírás|semnătura|\binitials\b|\binitial here|توقيع|חתימה/,
  ],
  [
    'date',
    /\bdates?\b|\bdated\b|\wed on$|\w am$|\w le$|\bdatum\b|\bdato\b|datum\b|\bfecha\b|\bdata (?:di|de|da|d')|^data$|\bdatę?\b|\bpäivämäärä|syntymäaika|\bbirthday\b|\bborn\b(?! in)|geboren am|né\(?e?\)? le|\bd\.?o\.?b\.?$|\bdátum|תאריך|تاريخ/,
  ],
  [
    'telephone',
    /\b(?:tele)?phone\b|\btel\b|\btel\.|\btelefon|\bteléfono|\btéléphone|\btelefone|\bpuhelin|\bmobile\b|\bhandy\b|\bfax\b|\bcell\b|móvil|\bgsm\b|هاتف|טלפון/,
  ],
  [
    'postal code',
    /\bpost(?:al)? ?codes?\b|\bpost(?:al)?code|\bzip\b|\bplz\b|postleitzahl|code postal|código postal|\bcap\b$|\bpostnummer|postinumero|\bpsč\b|kod pocztowy|irányítószám/,
  ],
  ['image', /\bphoto(?:graph)?\b(?! ?cop)|\bpicture\b|\blichtbild|passbild|\bfoto\b|fotografía/],
  [
    'amount',
    /\bamounts?\b|betrag\b|\bimporte\b|\bmontant\b|\bimporto\b|\bwages\b|\bsalary\b|\bincome\b|\brent\b(?!al)|\bprice\b|\bcosts?\b|\bfees?\b|\btax(?:es)? (?:withheld|due|paid)|\btotal (?:due|paid|cost|income)|[€$£]|\beinkommen\b|\blohn\b|\bgehalt\b|\bmiete\b|\bdeposit\b|\bbalance\b|\bpayment\b(?! method| date| type)/,
  ],
  [
    'number',
    /\bhow many\b|\bnumber of\b|^anzahl\b|\bnombre d|\bnúmero de (?:hijos|personas)|^quantity\b|\bqty\b|^age\b|\balter\b|\bpercent|%|\bhours\b|\bweight\b|\bheight\b/,
  ],
];

/** What words ask for by themselves; null: text of some kind. */
export function meaningOf(words: string): Meaning | null {
  const low = words.toLowerCase();
  return WORDS.find(([, pattern]) => pattern.test(low))?.[0] ?? null;
}
