/** What stands behind the # of a personal link. */
const TOKEN = /^[0-9A-Za-z-]{8,24}\.[\w-]{22}$/;

/** By what somebody came who was given a link of their own. */
export interface PersonalVisit {
  token: string;
  /** What they said to be let in; left out: nothing was asked. */
  check?: string;
}

/** @param hash of the address @returns null: it is no personal link */
export const personalToken = (hash: string): string | null => (TOKEN.test(hash.slice(1)) ? hash.slice(1) : null);
/** Where what was typed is kept, apart from that of others who use the same browser. */
export const personalPlace = (word: string, token: string): string => `${word}-${token.slice(-22)}`;
