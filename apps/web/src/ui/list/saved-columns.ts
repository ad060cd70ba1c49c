import { useState } from 'react';

const keyOf = (list: string): string => `mailbag.columns.${list}`;

/** The columns of a list that a person put away or took in, kept in this browser. @param stored as it was written */
export function readSaved(stored: string | null): Readonly<Record<string, boolean>> {
  try {
    const read: unknown = JSON.parse(stored ?? '{}');
    if (typeof read !== 'object' || read === null) return {};
    return Object.fromEntries(Object.entries(read).filter((entry): entry is [string, boolean] => typeof entry[1] === 'boolean'));
  } catch {
    return {};
  }
}

/** Which columns of a list a person wants to see; what is not named is as the list has it. */
export function useSavedColumns(list: string): [Readonly<Record<string, boolean>>, (shown: Readonly<Record<string, boolean>>) => void] {
  const [saved, keep] = useState(() => readSaved(localStorage.getItem(keyOf(list))));
  return [
    saved,
    (shown) => {
      keep(shown);
      localStorage.setItem(keyOf(list), JSON.stringify(shown));
    },
  ];
}
