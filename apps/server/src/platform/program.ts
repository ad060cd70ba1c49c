/** Where the parts of the program lie that are started by their files: what the compiler wrote, or the bundle that is made of it. */
let folder = new URL('../', import.meta.url);

/** Says where the running program lies; in a bundle nothing else knows. */
export const programLiesIn = (url: string): void => void (folder = new URL('./', url));

/** @param name of a file beside the one that was started */
export const programFile = (name: string): URL => new URL(name, folder);
