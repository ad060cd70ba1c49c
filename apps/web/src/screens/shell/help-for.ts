/** Pages of the manual by the beginning of an address; the longer one counts. */
const pages: readonly (readonly [address: RegExp, page: string])[] = [
  [/^\/mailings\/\d+\/records/, 'records'],
  [/^\/mailings\/\d+\/(map|contact)/, 'map'],
  [/^\/mailings\/\d+\/checks/, 'checks'],
  [/^\/mailings\/\d+\/output/, 'output'],
  [/^\/mailings\/\d+\/start/, 'batches'],
  [/^\/mailings\/\d+\/packet/, 'templates'],
  [/^\/templates/, 'templates'],
  [/^\/sources/, 'records'],
  [/^\/intakes/, 'intakes'],
  [/^\/(ledger|batches)/, 'batches'],
  [/^\/paper/, 'paper'],
  [/^\/settings/, 'office'],
];

/** The page of the manual that is about a screen. */
export const helpFor = (address: string): string => `/help/${pages.find(([is]) => is.test(address))?.[1] ?? 'start'}`;
