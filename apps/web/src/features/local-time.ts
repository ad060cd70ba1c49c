import { DateTime } from 'luxon';

const HERE = 'local';

/** A time as a browser's own field for it writes it; empty: none. @param iso ISO 8601 with an offset @param zone IANA; left out or empty: where the person is */
export const localTime = (iso: string | null, zone = ''): string =>
  iso === null ? '' : DateTime.fromISO(iso, { zone: zone || HERE }).toFormat("yyyy-MM-dd'T'HH:mm");

/** ISO 8601; null: none. @param zone see `localTime` */
export const fromLocalTime = (local: string, zone = ''): string | null =>
  local === ''
    ? null
    : DateTime.fromISO(local, { zone: zone || HERE })
        .toUTC()
        .toISO();

/** The same time of day in another zone: whoever says where it is meant does not want it moved. */
export const movedToZone = (iso: string | null, from = '', to = ''): string | null => fromLocalTime(localTime(iso, from), to);

/** Zones as they are chosen. @param own what no zone stands for */
export const zoneItems = (own: string): { id: string; text: string }[] => [
  { id: '', text: own },
  ...Intl.supportedValuesOf('timeZone').map((id) => ({ id, text: id.replaceAll('_', ' ') })),
];
