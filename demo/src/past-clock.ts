/**
 * Loaded before a server of the demo: its clock is set back by days, so that what it does happened then. MAILBAG_DEMO_DAYS_AGO says how many.
 */
const back = Number(process.env.MAILBAG_DEMO_DAYS_AGO ?? 0) * 86_400_000;
const Real = Date;

class PastDate extends Real {
  constructor(...given: ConstructorParameters<DateConstructor> | []) {
    if (given.length === 0) super(Real.now() - back);
    else super(...given);
  }
  static override now(): number {
    return Real.now() - back;
  }
}
globalThis.Date = PastDate as DateConstructor;
