/** The parts of the settings, in their order. */
export const settingsPlaces = [
  { id: 'mail', text: 'Senders', forAdministrators: false },
  { id: 'bounces', text: 'Bounces', forAdministrators: false },
  { id: 'paper', text: 'Office and printers', forAdministrators: false },
  { id: 'registers', text: 'Registers', forAdministrators: true },
  { id: 'people', text: 'People', forAdministrators: true },
  { id: 'retention', text: 'Retention', forAdministrators: true },
  { id: 'safety', text: 'Safety', forAdministrators: true },
  { id: 'jobs', text: 'Jobs', forAdministrators: true },
  { id: 'history', text: 'History', forAdministrators: true },
  { id: 'you', text: 'Your account', forAdministrators: false },
] as const;
