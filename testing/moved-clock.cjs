/** Loaded before a server: its clock stands as many milliseconds off as a file says, and follows the file while it runs. */
const { readFileSync } = require('node:fs');

const file = process.env.MAILBAG_TEST_CLOCK;
const Real = Date;
let offset = 0;
let looked = -1000;
const moved = () => {
  const now = performance.now();
  if (now - looked > 50) {
    looked = now;
    try {
      offset = Number(readFileSync(file, 'utf8')) || 0;
    } catch {
      offset = 0;
    }
  }
  return Real.now() + offset;
};
globalThis.Date = class Date extends Real {
  constructor(...given) {
    if (given.length === 0) super(moved());
    else super(...given);
  }
  static now() {
    return moved();
  }
};
