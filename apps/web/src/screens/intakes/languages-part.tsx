import { plural, t } from '@mailbag/core/words';
import type { IntakePlan, PageLanguage, PageText } from '@mailbag/core';
import { ownLanguage, pageLanguages, pageTexts, untranslated, withLanguage, withTranslation } from '@mailbag/core';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { languageName } from '../../features/language-name';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Bar, Pane, Scroll, Small, Stack } from '../../ui/layout';
import { Split } from '../../ui/split';
import { Notice } from '../../ui/mark';
import type { IntakeWork } from './intake-work';
import { VisitorFrame } from './visitor-frame';

const kinds: Record<PageText['kind'], string> = {
  title: t`Heading of the page`,
  intro: t`Before the first question`,
  heading: t`Heading of a step`,
  question: t`Question`,
  help: t`Help`,
  option: t`Option`,
  thanks: t`At the end`,
  contact: t`Whom to ask when it is closed`,
};
/** Characters from which on a text is written over several lines. */
const LONG = 60;

const Pair = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 12px;
  align-items: center;
  padding: 5px 16px;
  border-bottom: 1px solid ${color.hair};
  & > div:first-child {
    overflow-wrap: anywhere;
    white-space: pre-line;
  }
  &[data-inner] > div:first-child {
    padding-inline-start: 14px;
  }
  &[data-chosen] {
    background: ${color.plumWash};
  }
`;

const begun = ({ translations = {} }: IntakePlan): PageLanguage[] =>
  pageLanguages.filter((language) => Object.hasOwn(translations, language));

/** “English, German”. */
export function languagesInShort(plan: IntakePlan): string {
  const others = begun(plan).filter((language) => language !== ownLanguage(plan));
  const missing = others.filter((language) => untranslated(plan, language).length > 0).length;
  return [ownLanguage(plan), ...others].map((one) => languageName(one)).join(', ') + (missing > 0 ? t` · texts missing` : '');
}

/** What the office says on the page, in its own language and in others, beside the page. */
export function LanguagesPart({ work }: { work: IntakeWork }) {
  const { document: plan, change } = work;
  const [search, setSearch] = useSearchParams();
  const [missingOnly, setMissingOnly] = useState(false);
  const [pointed, setPointed] = useState<string | null>(null);
  const own = ownLanguage(plan);
  const others = begun(plan).filter((language) => language !== own);
  const chosen = others.find((language) => language === search.get('in')) ?? others[0] ?? null;
  const choose = (language: PageLanguage): void => setSearch({ in: language }, { replace: true });
  const missing = chosen === null ? [] : untranslated(plan, chosen);
  const isMissing = new Set(missing.map(({ place }) => place));
  const texts = pageTexts(plan);
  const free = pageLanguages.filter((language) => language !== own && !others.includes(language));
  return (
    <Split $columns="minmax(420px, 9fr) minmax(0, 8fr)">
      <Pane aria-label={t`Languages`}>
        <Bar>
          <div style={{ width: 190 }}>
            <Choice
              label={t`Your own words are in`}
              hideLabel
              small
              items={pageLanguages.map((language) => ({ id: language, text: t`Written in ${languageName(language)}` }))}
              value={own}
              onChange={(language) => change((before) => ({ ...before, language: language as PageLanguage }))}
            />
          </div>
          {others.map((language) => (
            <Button key={language} small pressed={language === chosen} onPress={() => choose(language)}>
              {languageName(language)}
            </Button>
          ))}
          {free.length > 0 && (
            <div style={{ width: 150 }}>
              <Choice
                label={t`Add a language`}
                hideLabel
                small
                placeholder={t`Add a language`}
                items={free.map((language) => ({ id: language, text: languageName(language) }))}
                value={null}
                onChange={(language) => {
                  change((before) => withLanguage(before, language as PageLanguage, true));
                  choose(language as PageLanguage);
                }}
              />
            </div>
          )}
        </Bar>
        {chosen === null ? (
          <Stack style={{ padding: 16, maxWidth: 520 }}>
            <p>{t`Buttons, hints and what is wrong with an answer come in ${plural(pageLanguages.length, 'language')} by themselves, and visitors get the one of their browser. Your own words are said as you wrote them: add a language, and write beside each of them what it is in that one.`}</p>
          </Stack>
        ) : (
          <>
            <Bar>
              <Small role="status">
                {missing.length === 0
                  ? t`All ${plural(texts.length, 'text')} are there in ${languageName(chosen)}.`
                  : t`${missing.length} of ${plural(texts.length, 'text')} not yet in ${languageName(chosen)}; visitors read those in ${languageName(own)}.`}
              </Small>
              <div className="fill" />
              {(missing.length > 0 || missingOnly) && (
                <Button small pressed={missingOnly} onPress={() => setMissingOnly(!missingOnly)}>{t`Missing only`}</Button>
              )}
            </Bar>
            <Scroll>
              {texts
                .filter(({ place }) => !missingOnly || isMissing.has(place))
                .map(({ place, kind, text, question }) => (
                  <Pair
                    key={place}
                    {...((kind === 'help' || kind === 'option') && { 'data-inner': true })}
                    {...(question !== null && question === pointed && { 'data-chosen': true })}
                    onFocus={() => setPointed(question)}
                  >
                    <div>
                      <Small>{kinds[kind]}</Small>
                      <div>{text}</div>
                    </div>
                    <div dir={chosen === 'ar' ? 'rtl' : 'ltr'}>
                      <TextInput
                        label={t`${text} in ${languageName(chosen)}`}
                        hideLabel
                        {...(text.length > LONG && { rows: 3 })}
                        value={plan.translations?.[chosen]?.[place] ?? ''}
                        onChange={(next) => change((before) => withTranslation(before, chosen, place, next))}
                      />
                    </div>
                  </Pair>
                ))}
              {missingOnly && missing.length === 0 && <Notice tone="moss">{t`Nothing is missing any more.`}</Notice>}
              <div style={{ padding: '10px 16px' }}>
                <Button
                  small
                  look="bare"
                  changes
                  onPress={() => change((before) => withLanguage(before, chosen, false))}
                >{t`Remove ${languageName(chosen)}`}</Button>
              </div>
            </Scroll>
          </>
        )}
      </Pane>
      <Pane aria-label={t`The page`}>
        <VisitorFrame work={work} question={pointed} language={chosen ?? own} />
      </Pane>
    </Split>
  );
}
