/** Milliseconds that a test waits for what must come. A machine that is busy with something else is no failure, so it is far more than any of it takes. */
export const PATIENCE = 150_000;
