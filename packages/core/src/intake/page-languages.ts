import type { IntakePlan } from './intake.js';
import { askedSections } from './intake.js';

/** Languages in which a page has words of its own (ISO 639-1). */
export const pageLanguages = ['en', 'de', 'fr', 'es', 'pl', 'uk', 'ar'] as const;
export type PageLanguage = (typeof pageLanguages)[number];

/** What the office says on a page in other languages, by where it stands. What is left out is said in the office's own. */
export type PageTranslations = Partial<Record<PageLanguage, Readonly<Record<string, string>>>>;

/** Something that the office says on a page. */
export interface PageText {
  /** Where it stands, as `PageTranslations` call it. */
  place: string;
  kind: 'title' | 'intro' | 'heading' | 'question' | 'help' | 'option' | 'thanks' | 'contact';
  text: string;
  /** Id of the question that it belongs to; null: to none. */
  question: string | null;
}

const headingPlace = (section: string): string => `heading ${section}`;
const wordsPlace = (question: string): string => `question ${question}`;
const helpPlace = (question: string): string => `help ${question}`;
const optionPlace = (question: string, value: string): string => `option ${question} ${value}`;

/** The language of the office's own words. */
export const ownLanguage = ({ language }: Pick<IntakePlan, 'language'>): PageLanguage => language ?? 'en';

/** Everything that the office says on a page, in the order in which visitors meet it; without what says nothing. */
export function pageTexts(plan: IntakePlan): PageText[] {
  const own = (place: PageText['kind'], text: string): PageText => ({ place, kind: place, text, question: null });
  const sections = askedSections(plan).filter(({ questions }) => questions.length > 0);
  return [
    own('title', plan.title.trim() || plan.name),
    own('intro', plan.intro),
    ...sections.flatMap(({ section, questions }): PageText[] => [
      { place: headingPlace(section.id), kind: 'heading', text: section.title, question: null },
      ...questions.flatMap(({ id, words, help, options }): PageText[] => [
        { place: wordsPlace(id), kind: 'question', text: words, question: id },
        { place: helpPlace(id), kind: 'help', text: help, question: id },
        ...options.map(({ value, say }): PageText => ({ place: optionPlace(id, value), kind: 'option', text: say, question: id })),
      ]),
    ]),
    own('thanks', plan.after.thanks),
    own('contact', plan.opening.contact),
  ].filter(({ text }) => text.trim() !== '');
}

/** The translations of what a page says now: of what was put away, and of options that are gone, nothing is told. */
export function shownTranslations(plan: IntakePlan): PageTranslations {
  const places = new Set(pageTexts(plan).map(({ place }) => place));
  return Object.fromEntries(
    Object.entries(plan.translations ?? {}).map(([language, texts]) => [
      language,
      Object.fromEntries(Object.entries(texts).filter(([place, text]) => places.has(place) && text.trim() !== '')),
    ]),
  );
}

/** What a page does not say in a language. */
export function untranslated(plan: IntakePlan, language: PageLanguage): PageText[] {
  const texts = plan.translations?.[language] ?? {};
  return pageTexts(plan).filter(({ place }) => (Object.hasOwn(texts, place) ? texts[place]! : '').trim() === '');
}

/** The plan as it is said in a language; what has no translation stays as the office says it. */
export function planIn(plan: IntakePlan, language: PageLanguage): IntakePlan {
  const texts = language === ownLanguage(plan) ? undefined : plan.translations?.[language];
  if (!texts) return plan;
  const textOf = (place: string, own: string): string => {
    const text = Object.hasOwn(texts, place) ? texts[place]! : '';
    return own.trim() === '' || text.trim() === '' ? own : text;
  };
  return {
    ...plan,
    title: textOf('title', plan.title.trim() || plan.name),
    intro: textOf('intro', plan.intro),
    sections: plan.sections.map((section) => ({ ...section, title: textOf(headingPlace(section.id), section.title) })),
    questions: Object.fromEntries(
      Object.entries(plan.questions).map(([id, question]) => [
        id,
        {
          ...question,
          words: textOf(wordsPlace(id), question.words),
          help: textOf(helpPlace(id), question.help),
          options: question.options.map(({ value, say }) => ({ value, say: textOf(optionPlace(id, value), say) })),
        },
      ]),
    ),
    after: { ...plan.after, thanks: textOf('thanks', plan.after.thanks) },
    opening: { ...plan.opening, contact: textOf('contact', plan.opening.contact) },
  };
}

/** The plan with one text said in a language; empty: it is said in the office's own again. */
export function withTranslation(plan: IntakePlan, language: PageLanguage, place: string, text: string): IntakePlan {
  const { [place]: _before, ...others } = plan.translations?.[language] ?? {};
  return { ...plan, translations: { ...plan.translations, [language]: text === '' ? others : { ...others, [place]: text } } };
}

/** The plan with another language begun, or one taken away with all that is said in it. */
export function withLanguage(plan: IntakePlan, language: PageLanguage, isWanted: boolean): IntakePlan {
  const { [language]: own, ...others } = plan.translations ?? {};
  return { ...plan, translations: isWanted ? { ...others, [language]: own ?? {} } : others };
}

/** Whether something read from outside is translations. */
export const isTranslations = (value: unknown): value is PageTranslations =>
  typeof value === 'object' &&
  value !== null &&
  !Array.isArray(value) &&
  Object.entries(value).every(
    ([language, texts]) =>
      (pageLanguages as readonly string[]).includes(language) &&
      typeof texts === 'object' &&
      texts !== null &&
      Object.entries(texts as object).every(([place, text]) => place.length <= 400 && typeof text === 'string' && text.length <= 5000),
  );
