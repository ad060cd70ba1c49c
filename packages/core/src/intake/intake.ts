import { questionKinds } from '../answers/question-kinds.js';
import type { Condition } from '../map/condition.js';
import type { AnswerShape } from './answer-shape.js';
import type { FilledFrom } from './filled-from.js';
import type { PageLanguage, PageTranslations } from './page-languages.js';

/** What stands on a page: what fields of forms are asked for, a consent that is ticked, and a notice that is only read. */
export const intakeKinds = [...questionKinds, 'consent', 'notice'] as const;
export type IntakeKind = (typeof intakeKinds)[number];

/** What a visitor can choose. */
export interface IntakeOption {
  /** What the record is given: the form's own words, without commas, since several are told apart by them. */
  value: string;
  /** What the visitor reads. */
  say: string;
}

/** A question of an intake. Its answer stands in a column of the intake's source, from where the map of its mailing takes it. */
export interface IntakeQuestion {
  /** Never changes, and is never used again. */
  id: string;
  /** The column of its answers; it stays when the words change. */
  column: string;
  words: string;
  kind: IntakeKind;
  required: boolean;
  /** Empty: none. */
  help: string;
  options: IntakeOption[];
  /** Most characters; null: no limit. */
  limit: number | null;
  /** What stands there before anybody has answered. Empty: nothing. */
  initial: string;
  /** When it is asked, over columns of other questions; null: always. */
  when: Condition | null;
  /** Put away: it is not asked, and can be brought back. */
  isAway: boolean;
  /** Why somebody should look at it, as a sentence; empty: it is sure, or was looked at. */
  doubt: string;
  /** How sure it is, from 0 to 1, and why, as it was made of the forms; null or left out: a person made it or looked at it. */
  sure?: { part: number; why: string } | null;
  /** What text looks like; null or left out: like anything. */
  shape?: AnswerShape | null;
  /** The smallest and greatest number, or the first and last day (YYYY-MM-DD, or `today`). Empty or left out: there is none. */
  minimum?: string;
  maximum?: string;
  /** Of a question that was put away: the answers that fill it all the same; null or left out: nothing does. */
  filled?: FilledFrom | null;
}

/** Questions that stand under one heading: one step of the page. */
export interface IntakeSection {
  id: string;
  title: string;
  when: Condition | null;
  /** Ids of its questions, in their order. */
  questions: string[];
}

/** What the office is mailed of each answer, with the answers as a table. */
export interface OfficeNotice {
  /** Addresses with commas between them. */
  to: string;
  /** Patterns over the columns of the answers. */
  subject: string;
  /** Rich text. */
  body: string;
  /** How the copies go along. */
  attach: 'none' | 'files' | 'combined' | 'zip';
}

/** What becomes of an answer. */
export interface IntakeAfter {
  /** Whether copies are made as soon as somebody has answered; otherwise the answers gather until a person starts a batch. */
  atOnce: boolean;
  /** What the visitor reads at the end. */
  thanks: string;
  /** Null or left out: the office is mailed nothing of its own. */
  notice?: OfficeNotice | null;
}

/** When the page takes answers. */
export interface IntakeOpening {
  /** ISO 8601 times with an offset; null: no limit. */
  from: string | null;
  until: string | null;
  /** The time zone in which these are told (IANA); left out: the one of whoever looks. */
  zone?: string;
  /** Most submissions; null: no limit. */
  maximum: number | null;
  /** Whom to ask when it is closed. Empty: nobody is named. */
  contact: string;
  /** Sites that may show the page within theirs, as origins such as https://www.example.org. */
  sites: string[];
  /** What visitors must say before they see anything; left out or empty: nothing. */
  passPhrase?: string;
  /** Whether one e-mail address can answer only once; left out: it can answer as often as it likes. */
  oncePerAddress?: boolean;
  /** Days for which a link holds by which a visitor goes on later; 0: none is mailed. */
  retentionDays: number;
}

/** Personal links: pages that are filled in already with what the records of a mailing say. */
export interface PersonalPlan {
  /** The mailing whose copies and messages hold the links. */
  mailingId: number;
  /** Where people reach Mailbag, as an origin such as https://forms.example.org. */
  site: string;
  /** When the links end. ISO 8601 with an offset; null: never. */
  until: string | null;
  /** The column whose value a visitor must know first, such as a date of birth. Empty: none. */
  ask: string;
  /** Who takes changes over into the source: a person who looks at each, or Mailbag by itself. */
  accept: 'person' | 'mailbag';
  /** Grows when links that were given are to hold no longer. */
  round: number;
  /** Columns of the records: what is not asked is known all the same, and fills the copies of answers. */
  columns: string[];
  /** How the records say an answer, by the ids of questions and their answers, where they say it otherwise. */
  recordWords: Record<string, Record<string, string>>;
}

/** Everything of an intake that a person decides. */
export interface IntakePlan {
  name: string;
  /** What stands above the page, and below it before the first question. */
  title: string;
  intro: string;
  sections: IntakeSection[];
  questions: Record<string, IntakeQuestion>;
  after: IntakeAfter;
  opening: IntakeOpening;
  /** Null or left out: it has no personal links. */
  personal?: PersonalPlan | null;
  /** The first page of the first form, as a data URL of a JPEG, and the revision that it was drawn of; null or left out: it is not shown. */
  picture?: { image: string; revision: number } | null;
  /** Of the words above; left out: English. */
  language?: PageLanguage;
  /** Left out: it is said in one language. */
  translations?: PageTranslations;
}

/** An answer: text as it was typed, or several of the options. A picture is a data URL until it is taken in, and the name of a file afterwards. */
export type AnswerValue = string | string[];
/** By the ids of the questions. What is not answered is left out. */
export type IntakeAnswers = Readonly<Record<string, AnswerValue>>;

export const YES = 'yes';
export const NO = 'no';
/** Kinds whose answer is a picture. */
export const isPictureKind = (kind: IntakeKind): boolean => kind === 'signature' || kind === 'image';
/** Whether it is answered at all. */
export const isAnswered = ({ kind }: Pick<IntakeQuestion, 'kind'>): boolean => kind !== 'notice';

/** The sections with their questions in the order in which they are asked, without what was put away. */
export const askedSections = (plan: IntakePlan): { section: IntakeSection; questions: IntakeQuestion[] }[] =>
  plan.sections.map((section) => ({
    section,
    questions: section.questions.flatMap((id) => {
      const question = Object.hasOwn(plan.questions, id) ? plan.questions[id] : undefined;
      return question && !question.isAway ? [question] : [];
    }),
  }));

/** All questions in their order, also those that were put away. */
export const orderedQuestions = (plan: IntakePlan): IntakeQuestion[] =>
  plan.sections.flatMap(({ questions }) => questions.flatMap((id) => plan.questions[id] ?? []));
