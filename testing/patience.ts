/** Milliseconds that a test waits for what must come. A machine that is busy with something else is no failure, so it is far more than any of it takes.
 * Whoever writes a test has less: TEST_PATIENCE. */
export const PATIENCE = Number(process.env.TEST_PATIENCE ?? 150_000);
