/** Names in the data folder that more than one program has to know. */
export const DATABASE = 'mailbag.sqlite';
export const KEY = 'secret.key';
/** Held for as long as a program has the folder. */
export const LOCK = 'mailbag.lock';
/** Who holds it, for sentences. */
export const HOLDER = 'mailbag.pid';
