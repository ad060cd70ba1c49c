import { spokenLanguage } from '@mailbag/core/words';

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

/** Where the manual begins, in the language that is spoken. */
export const manualStart = (): string => (spokenLanguage() === 'de' ? '/help/de' : '/help');

/** The page of the manual that is about a screen. */
export const helpFor = (address: string): string => `${manualStart()}/${pages.find(([is]) => is.test(address))?.[1] ?? 'start'}`;
