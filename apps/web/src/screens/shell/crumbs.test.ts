import { titleOf } from './crumbs';

test.each([
  [[{ text: 'Ledger' }], 'Ledger · Mailbag'],
  [
    [{ text: 'Mailings', to: '/mailings' }, { text: 'Plot renewals 2027' }, { text: 'Map', isPart: true }],
    'Map · Plot renewals 2027 · Mailbag',
  ],
  [
    [{ text: 'Templates', to: '/templates' }, { text: 'Tenancy agreement', to: '/templates/1' }, { text: 'Layout' }],
    'Layout · Tenancy agreement · Mailbag',
  ],
  [[{ text: 'Settings' }, { text: 'People' }], 'People · Settings · Mailbag'],
  // A part that is not known yet leaves no gap.
  [[{ text: 'Intakes', to: '/intakes' }, { text: 'Ask for a plot' }, { text: '', isPart: true }], 'Ask for a plot · Mailbag'],
  [[], 'Mailbag'],
])('the window says the part, what it belongs to and the place', (crumbs, title) => expect(titleOf(crumbs)).toBe(title));
