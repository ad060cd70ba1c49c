import { SAMPLE_CODE, fillContext } from '../map/fill-context.js';

/** What a record is filled with in tests where it makes no difference. */
export const someContext = fillContext({ batch: 4, today: '2027-01-02', locale: 'en-GB', zone: 'Europe/London' }, 0, SAMPLE_CODE);
