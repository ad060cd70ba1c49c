import type { Challenge } from 'altcha-lib';
import type { PersonalVisit } from './personal-token';
import type { FaultCode, IntakeAnswers, IntakePlan } from '@mailbag/core/intake';

/** What the server tells of a page. */
export interface PublicPage {
  edition: number;
  office: string;
  plan: IntakePlan;
  forms: string[];
  /** Days for which a link to go on later holds; 0: none can be mailed. */
  retentionDays: number;
  closed: { why: 'not-yet' | 'over' | 'full'; at: string } | null;
}
export interface Fault {
  question: string;
  code: FaultCode;
  detail: string;
}
export interface Receipt {
  number: string;
  copies: string[];
  isMaking: boolean;
  /** Whether they can be mailed on. */
  canMail: boolean;
}
/** What the server refused, with its sentence. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
  ) {
    super(message);
  }
}

/** What lets a visitor in to a page that has a pass phrase: the phrase, or the personal link that they were given. */
const pass = { phrase: '', link: '' };
export const letIn = (by: Partial<typeof pass>): void => void Object.assign(pass, by);

async function ask(method: 'GET' | 'POST', path: string, body?: unknown, more: Record<string, string> = {}): Promise<Response> {
  const answer = await fetch(`/api/public/${path}`, {
    method,
    credentials: 'omit',
    headers: {
      'X-Mailbag': '1',
      ...(pass.phrase && { 'X-Mailbag-Phrase': encodeURIComponent(pass.phrase) }),
      ...(pass.link && { 'X-Mailbag-Link': encodeURIComponent(pass.link) }),
      ...(body !== undefined && { 'Content-Type': 'application/json' }),
      ...more,
    },
    ...(body !== undefined && { body: JSON.stringify(body) }),
  });
  if (answer.ok) return answer;
  const { code = '', message = '' } = (await answer.json().catch(() => ({}))) as { code?: string; message?: string };
  throw new Refused(answer.status, code, message);
}
const json = async <T>(answer: Promise<Response>): Promise<T> => (await (await answer).json()) as T;

/** The intake of the page's own address. */
export const wordOf = (path: string): string => decodeURIComponent(path.split('/')[2] ?? '');

/** @param begun the version in which somebody began; left out: what is published now */
export const loadPage = (word: string, begun?: number): Promise<PublicPage> =>
  json(ask('GET', `intakes/${encodeURIComponent(word)}${begun === undefined ? '' : `?edition=${begun}`}`));

export const checkAnswers = async (word: string, edition: number, answers: IntakeAnswers): Promise<Fault[]> =>
  (await json<{ faults: Fault[] }>(ask('POST', `intakes/${encodeURIComponent(word)}/check`, { edition, answers }))).faults;

/** Where an answer stands on a form. */
export interface Box {
  question: string;
  form: number;
  page: number;
  rect: [number, number, number, number];
}
export const loadBoxes = async (word: string, edition: number): Promise<Box[]> =>
  (await json<{ boxes: Box[] }>(ask('GET', `intakes/${encodeURIComponent(word)}/boxes?edition=${edition}`))).boxes;

export async function filledForm(
  word: string,
  edition: number,
  answers: IntakeAnswers,
  index: number,
  personal: PersonalVisit | null,
): Promise<{ bytes: Uint8Array; form: number; forms: number[] }> {
  const answer = await ask('POST', `intakes/${encodeURIComponent(word)}/preview/${index}`, {
    edition,
    answers,
    ...(personal && { personal }),
  });
  return {
    bytes: new Uint8Array(await answer.arrayBuffer()),
    form: Number(answer.headers.get('X-Form') ?? 0),
    forms: (answer.headers.get('X-Copies') ?? '0').split(',').map(Number),
  };
}

/** What a personal link shows. */
export interface PersonalAnswer {
  edition: number;
  answers: IntakeAnswers;
  /** What must be said first; null: nothing. */
  asks: string | null;
  isWrong: boolean;
}

/** @throws Refused */
export const openPersonal = (word: string, token: string, check?: string): Promise<PersonalAnswer> =>
  json(ask('POST', `intakes/${encodeURIComponent(word)}/personal`, { token, ...(check !== undefined && { check }) }));

/** Sends answers. Where much comes from the same part of the network, this device works on a puzzle first. @throws Refused */
export async function submit(
  word: string,
  request: { edition: number; answers: IntakeAnswers; key: string; language: string; website: string; personal?: PersonalVisit },
): Promise<{ faults: Fault[]; number: string | null; receipt: string | null }> {
  const path = `intakes/${encodeURIComponent(word)}`;
  try {
    return await json(ask('POST', `${path}/submissions`, request));
  } catch (error) {
    if (!(error instanceof Refused) || error.code !== 'intake-puzzle') throw error;
    const [{ solved }, challenge] = await Promise.all([import('./puzzle'), json<Challenge>(ask('GET', `${path}/puzzle`))]);
    return json(ask('POST', `${path}/submissions`, request, { 'X-Mailbag-Proof': await solved(challenge) }));
  }
}

/** Mails a link to go on later. @throws Refused */
export const mailLink = async (
  word: string,
  visit: { edition: number; answers: IntakeAnswers; step: number; key: string; language: string; email: string },
): Promise<void> => void (await ask('POST', `intakes/${encodeURIComponent(word)}/visits`, visit));

/** What stands behind a link to go on. @throws Refused */
export const goOnWith = (word: string, token: string): Promise<{ edition: number; answers: IntakeAnswers; step: number; key: string }> =>
  json(ask('POST', `intakes/${encodeURIComponent(word)}/visits/saved`, { token }));

export const loadReceipt = (key: string): Promise<Receipt> => json(ask('GET', `receipts/${encodeURIComponent(key)}`));
/** Mails a code to an address that somebody says is theirs. @throws Refused */
export const mailCode = async (key: string, email: string, language: string): Promise<void> =>
  void (await ask('POST', `receipts/${encodeURIComponent(key)}/mail-code`, { email, language }));
/** Mails the copies on. @throws Refused */
export const mailCopies = async (key: string, code: string, to: string, language: string): Promise<void> =>
  void (await ask('POST', `receipts/${encodeURIComponent(key)}/mail`, { code, to, language }));
export const copyAddress = (key: string, index: number): string => `/api/public/receipts/${encodeURIComponent(key)}/copies/${index}`;
export const zipAddress = (key: string): string => `/api/public/receipts/${encodeURIComponent(key)}/copies.zip`;
