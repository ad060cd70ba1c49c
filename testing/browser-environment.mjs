import { TestEnvironment } from 'jest-environment-jsdom';

/** A page without a browser, with what every browser has and jsdom leaves out. */
export default class BrowserEnvironment extends TestEnvironment {
  constructor(...given) {
    super(...given);
    // Names in these tests hold nothing that would have to be escaped (CSSOM, “CSS.escape”).
    const CSS = { escape: (text) => text };
    // ECMAScript 2025, 24.1.2.1: browsers have it, Node 20 does not.
    this.global.Map.groupBy ??= (items, keyOf) => {
      const groups = new this.global.Map();
      for (const item of items) groups.set(keyOf(item), [...(groups.get(keyOf(item)) ?? []), item]);
      return groups;
    };
    // A page without a layout has nothing to scroll.
    this.global.Element.prototype.scrollIntoView ??= () => undefined;
    Object.assign(this.global, { TextEncoder, TextDecoder, structuredClone, Uint8Array, CSS });
  }
}
