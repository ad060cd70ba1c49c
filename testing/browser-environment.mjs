import { TestEnvironment } from 'jest-environment-jsdom';

/** A page without a browser, with what every browser has and jsdom leaves out. */
export default class BrowserEnvironment extends TestEnvironment {
  constructor(...given) {
    super(...given);
    // Names in these tests hold nothing that would have to be escaped (CSSOM, “CSS.escape”).
    const CSS = { escape: (text) => text };
    Object.assign(this.global, { TextEncoder, TextDecoder, structuredClone, Uint8Array, CSS });
  }
}
