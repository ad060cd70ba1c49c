import type { Locator, Page } from 'playwright-core';

/** Presses of Tab after which whoever looks for something has given up. */
const MOST = 150;

/**
 * A person who has a keyboard and nothing else. Stops are counted: each press of Tab or of an arrow that moves the focus. Beside them stand those of the
 * shortest way: forwards, backwards, or past the menu by the skip link, whichever reaches first what is wanted.
 */
export class KeyboardUser {
  stops = 0;
  shortest = 0;

  constructor(private readonly page: Page) {}

  private has(wanted: Locator): Promise<boolean> {
    return wanted.evaluate((element) => element === document.activeElement).catch(() => false);
  }

  /** Stops from where the focus is, by the shortest way that Tab offers. */
  private fewest(wanted: Locator): Promise<number> {
    return wanted.evaluate((element) => {
      const all = [
        ...document.querySelectorAll<HTMLElement>('a[href], button, input, select, textarea, [tabindex], [contenteditable="true"]'),
      ].filter(
        (one) => one.tabIndex >= 0 && !(one as HTMLButtonElement).disabled && one.checkVisibility() && one.closest('[inert]') === null,
      );
      const at = all.indexOf(element as HTMLElement);
      const focus = document.activeElement ?? document.body;
      const before = all.filter((one) => (focus.compareDocumentPosition(one) & Node.DOCUMENT_POSITION_PRECEDING) > 0 && one !== focus);
      const here = all.indexOf(focus as HTMLElement);
      const next = here >= 0 ? here + 1 : before.length;
      const forwards = at >= next ? at - next + 1 : all.length - next + at + 1;
      const backwards = at < next ? (here >= 0 ? here - at : before.length - at) : before.length + all.length - at;
      // The skip link is the first stop of the page; one press follows it.
      const main = document.querySelector('main');
      const inMain = all.findIndex((one) => main?.contains(one));
      const skipping = main?.contains(element) && at >= inMain ? 1 + (at - inMain + 1) + (here >= 0 ? here + 1 : before.length) : Infinity;
      return Math.max(1, Math.min(forwards, Math.max(1, backwards), skipping));
    });
  }

  /** Goes on with Tab until something has the focus, the way most people go. @param name what it is, for whoever reads that it cannot be reached */
  async to(wanted: Locator, name: string): Promise<void> {
    const target = wanted.first();
    await target.waitFor();
    if (await this.has(target)) return;
    this.shortest += await this.fewest(target);
    for (let presses = 0; presses < MOST; presses++) {
      await this.page.keyboard.press('Tab');
      this.stops++;
      if (await this.has(target)) return;
    }
    throw new Error(`Whoever has only a keyboard does not reach “${name}” with ${MOST} presses of Tab.`);
  }

  /** Goes to something and presses it. */
  async press(wanted: Locator, name: string): Promise<void> {
    await this.to(wanted, name);
    await this.page.keyboard.press('Enter');
  }

  /** Goes to a place by Find, which is open from everywhere. */
  async find(words: string): Promise<void> {
    await this.page.keyboard.press('Control+k');
    await this.page.keyboard.type(words);
    await this.page.getByRole('option', { name: words }).first().waitFor();
    await this.page.keyboard.press('ArrowDown');
    await this.page.keyboard.press('Enter');
    this.count(2);
  }

  /** Goes to the next part of a mailing by its key. */
  async nextPart(): Promise<void> {
    await this.page.keyboard.press('n');
    this.count(1);
  }

  private count(stops: number): void {
    this.stops += stops;
    this.shortest += stops;
  }

  async type(wanted: Locator, name: string, text: string): Promise<void> {
    await this.to(wanted, name);
    await this.page.keyboard.type(text);
  }
}
