import { Random } from './random.js';

/** One tenancy as a row of the workbook. Dates in UTC. */
export interface Tenancy {
  plot: string;
  site: string;
  area: number;
  firstName: string;
  surname: string;
  email: string;
  phone: string;
  street: string;
  /** A number where the sheet lost the leading zero. */
  postalCode: string | number;
  town: string;
  born: Date | string;
  concession: string;
  rent: number;
  water: number;
  total: number;
  deposit: number;
  waterSupply: string;
  greenhouse: string;
  shed: string;
  start: Date | string;
  until: Date;
  iban: string;
  collectionDay: string;
  payment: string;
  remarks: string;
}

const people: [string, string][] = [
  ['Ayumi', 'Brandt'],
  ['Tomasz', 'Łąkowski'],
  ['Δάφνη', 'Ρήγα'],
  ['Iman', 'al-Sayegh'],
  ['Ruben', 'Oyelaran'],
  ['Hollis', 'Penhaligon-Vance'],
  ['Niamh', 'O’Derry'],
  ['Petra', 'Quist'],
  ['Сергій', 'Гончар'],
  ['Noor', 'Haddad'],
  ['Wilf', 'Ashdown'],
  ['Malia', 'Keawe'],
  ['Ottoline', 'Brace'],
  ['Eun-ji', 'Bae'],
  ['Şebnem', 'Yıldırgan'],
  ['Zoë', 'van der Meulen'],
  ['Jiří', 'Dvoržák'],
  ['Ingibjörg', 'Hallsdóttir'],
  ['Amadou', 'Diakité'],
  ['Priya', 'Ramanujar'],
  ['Luís', 'Figueirão'],
  ['Ewa', 'Świerk'],
  ['Ålof', 'Nystrånd'],
  ['Мила', 'Петковић'],
  ['Greta', 'Holzapfl'],
  ['Cosimo', 'Ferrantino'],
  ['Bronagh', 'Mac Aodha'],
  ['Teodor', 'Vântu'],
  ['Ngozi', 'Umeh'],
  ['Solvei', 'Rasmuss'],
  ['Bertrand', 'Lacouture'],
  ['Anneke', 'Duyvis'],
];
const rarer: [string, string][] = [
  ['יעל', 'ברקאי'],
  ['ليلى', 'الخطيب'],
  ['Ελένη', 'Μαυρίδου'],
  ['Юлия', 'Снегирёва'],
];
const sites = ['Mill Lane', 'Larkmere Hill', 'Canal Side', 'Old Orchard'];
const streets = [
  'Weir Cottages',
  'Heron Walk',
  'Tanner’s Row',
  'Quay Street',
  'Bellfounder Yard',
  'Rosehip Close',
  'Sluice Road',
  'Almond Terrace',
];
const towns: [string, string][] = [
  ['04471', 'Nether Larkmere'],
  ['04473', 'Larkmere'],
  ['14480', 'Upper Sluice'],
  ['24491', 'Wether Cross'],
  ['05512', 'Bellhaven'],
];
const concessions: [string, number][] = [
  ['None', 0],
  ['None', 0],
  ['None', 0],
  ['Pensioner 25 %', 0.25],
  ['In training 20 %', 0.2],
  ['Large family 15 %', 0.15],
];
const remarks = [
  '',
  '',
  '',
  '',
  'Shares the water tap with the next plot.',
  'Key number 12 is with the neighbour.',
  'Wants to swap for a plot nearer to the gate.',
];

const day = (year: number, month: number, date: number): Date => new Date(Date.UTC(year, month - 1, date));
const ascii = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/[^A-Za-z]/g, '')
    .toLowerCase();
const cents = (value: number): number => Math.round(value * 100) / 100;

/** An account number of the invented country LK with right check digits (ISO 13616: MOD 97-10). */
function inventedIban(random: Random): string {
  const body = `LARK${String(random.whole(1e14)).padStart(14, '0')}`;
  const digits = `${body}LK00`.replace(/[A-Z]/g, (letter) => String(letter.charCodeAt(0) - 55));
  let rest = 0;
  for (const digit of digits) rest = (rest * 10 + Number(digit)) % 97;
  return `LK${String(98 - rest).padStart(2, '0')}${body}`;
}

/** 480 tenancies with the faults that sheets have. */
export function tenancies(): Tenancy[] {
  const random = new Random(2027);
  const all: Tenancy[] = [];
  for (let index = 0; index < 480; index++) {
    const site = Math.floor(index / 120);
    const [firstName, surname] = index % 24 === 11 ? random.pick(rarer) : random.pick(people);
    const area = 80 + random.whole(25) * 10;
    const [concession, less] = random.pick(concessions);
    const rent = cents(area * 0.82);
    const water = random.pick([18.5, 18.5, 24, 0]);
    const [postalCode, town] = random.pick(towns);
    const plot = `${'ABCD'[site]}-${String((index % 120) + 1).padStart(2, '0')}`;
    all.push({
      plot,
      site: sites[site]!,
      area,
      firstName,
      surname,
      email: `${ascii(firstName) || 'tenant'}.${ascii(plot)}${(index % 120) + 1}@${random.pick(['example.org', 'example.net'])}`,
      phone: `01632 960 ${String(100 + random.whole(900))}`,
      street: `${random.pick(streets)} ${1 + random.whole(60)}`,
      postalCode,
      town,
      born: day(1940 + random.whole(60), 1 + random.whole(12), 1 + random.whole(28)),
      concession,
      rent,
      water,
      total: cents(rent * (1 - less) + water),
      deposit: 25,
      waterSupply: random.pick(['yes', 'yes', 'no']),
      greenhouse: random.pick(['yes', 'no', 'no', 'no']),
      shed: random.pick(['yes', 'no', 'no']),
      start: day(2027, 2, 1),
      until: day(2028, 1, 31),
      iban: inventedIban(random),
      collectionDay: random.pick(['1st of the month', '15th of the month']),
      payment: random.pick(['once a year', 'once a year', 'twice a year', 'every quarter']),
      remarks: random.pick(remarks),
    });
  }
  addFaults(all);
  return all;
}

function addFaults(all: Tenancy[]): void {
  const at = (index: number): Tenancy => all[index]!;
  // Postal codes that a sheet took for numbers: their leading zero is lost.
  let lost = 0;
  for (const one of all)
    if (String(one.postalCode).startsWith('0') && lost < 9 && one.site === 'Canal Side') {
      one.postalCode = Number(one.postalCode);
      lost++;
    }
  // Two plots with one number.
  at(57).plot = at(56).plot;
  // Bad addresses.
  at(23).email = 'malia.a24@example';
  at(101).email = 'ottoline brace@example.org';
  at(240).email = 'petra.c1@@example.net';
  at(333).email = 'none';
  at(150).email = '';
  // Recipients whom the post office treats in its own ways.
  at(4).email = 'unknown.a5@example.net';
  at(9).email = 'later.a10@example.org';
  at(30).email = 'unknown.a31@example.org';
  at(77).email = 'full.a78@example.net';
  at(130).email = 'later.b11@example.net';
  at(201).email = 'unknown.b82@example.net';
  // A name too long for its box.
  at(16).firstName = 'Ayumi Maximiliane Theodora';
  at(16).surname = 'Brandt-Ó Súilleabháin zu Obernetherlarkmere und der Vorderen Windmühlenwiese';
  // It is on the permit, too.
  at(16).shed = 'yes';
  // A stray space, a date typed as text, values that nobody foresaw.
  at(42).site = ' Mill Lane';
  at(88).start = '31.02.2027';
  at(64).waterSupply = 'perhaps';
  at(215).concession = 'Student';
}
