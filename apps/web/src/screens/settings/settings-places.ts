import { t } from '@mailbag/core/words';

/** The parts of the settings, in their order. */
export const settingsPlaces = [
  { id: 'mail', text: t`Senders`, forAdministrators: false },
  { id: 'bounces', text: t`Bounces`, forAdministrators: false },
  { id: 'paper', text: t`Office and printers`, forAdministrators: false },
  { id: 'registers', text: t`Registers`, forAdministrators: true },
  { id: 'people', text: t`People`, forAdministrators: true },
  { id: 'retention', text: t`Retention`, forAdministrators: true },
  { id: 'safety', text: t`Safety`, forAdministrators: true },
  { id: 'jobs', text: t`Jobs`, forAdministrators: true },
  { id: 'history', text: t`History`, forAdministrators: true },
  { id: 'you', text: t`Your account`, forAdministrators: false },
] as const;
