import { nameColumns } from './name-columns.js';

type Named = { name: string; examples: string[] };
const found = (...columns: (string | [name: string, ...examples: string[]])[]): (string | null)[] => {
  const { firstName, surname, whole } = nameColumns(
    columns.map((one): Named => (typeof one === 'string' ? { name: one, examples: [] } : { name: one[0], examples: one.slice(1) })),
  );
  return [firstName, surname, whole].map((one) => one?.name ?? null);
};

test.each([
  [found('Plot', 'First name', 'Surname'), ['First name', 'Surname', 'Surname']],
  [found('Vorname', 'Nachname', 'PLZ'), ['Vorname', 'Nachname', 'Nachname']],
  [found('Nom', 'Prénom'), ['Prénom', 'Nom', 'Nom']],
  // As German sheets have it: “Name” beside “Vorname” is the surname, unless whole names stand in it.
  [found(['Name', 'Quist', 'Brandt'], ['Vorname', 'Ada', 'Bea']), ['Vorname', 'Name', 'Name']],
  [found(['Name', 'Ada Quist', 'Bea Brandt'], ['Vorname', 'Ada', 'Bea']), ['Vorname', null, 'Name']],
  [found('Name, Vorname', 'Ort'), [null, null, 'Name, Vorname']],
  [found('Full name', 'Street name'), [null, null, 'Full name']],
  [found('Street name', 'Member number', 'Tenant'), [null, null, 'Tenant']],
  [found('Street name', 'Bank', 'Member number'), [null, null, null]],
  [found('Nickname of the plot', 'Pupil name'), [null, null, 'Pupil name']],
])('%j', (columns, wanted) => expect(columns).toEqual(wanted));
