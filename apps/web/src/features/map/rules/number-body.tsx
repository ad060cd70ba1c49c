import { t } from '@mailbag/core/words';
import type { Digits, NumberRule, WordsLanguage } from '@mailbag/core';
import { wordsLanguages } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import { Toggled } from '../../../ui/field';
import { DraftText } from './draft-text';
import { languageName } from '../../language-name';
import { LanguageChoice } from './language-choice';
import { Lead, Line } from './parts';
import { RoundingChoice } from './rounding-choice';
import { PartLine } from './rule-part';
import type { BodyProps } from './rule-setting';

const signs = [
  { id: 'minus', text: t`minus below 0` },
  { id: 'always', text: t`plus or minus` },
  { id: 'brackets', text: t`(12) below 0` },
  { id: 'never', text: t`no sign` },
];
const percents = [
  { id: 'no', text: t`no percent` },
  { id: 'as-it-is', text: t`5 is 5 %` },
  { id: 'times-100', text: t`0.05 is 5 %` },
];
const plain: Digits = { thousands: true, currency: null, percent: 'no', sign: 'minus', language: null };

export function NumberBody({ rule, place, onChange }: BodyProps<NumberRule>) {
  const { show } = rule;
  const inWords = 'words' in show;
  const put = (next: NumberRule['show']): void => onChange({ ...rule, show: next });
  return (
    <>
      <PartLine lead={t`Number`} place={place} rule={rule.of} onChange={(of) => onChange({ ...rule, of })} />
      <RoundingChoice place={place} round={rule.round} onChange={(round) => onChange({ ...rule, round })} />
      <Line>
        <Lead>{t`Show in`}</Lead>
        <Choice
          label={t`${place}Digits or words`}
          hideLabel
          small
          items={[
            { id: 'digits', text: t`digits` },
            { id: 'words', text: t`words` },
          ]}
          value={inWords ? 'words' : 'digits'}
          onChange={(id) => put(id === 'words' ? { words: 'en-GB', currency: show.currency } : { ...plain, currency: show.currency })}
        />
        {inWords ? (
          <Choice
            label={t`${place}Language of the words`}
            hideLabel
            small
            items={wordsLanguages.map((id) => ({ id, text: languageName(id) }))}
            value={show.words}
            onChange={(words) => put({ ...show, words: words as WordsLanguage })}
          />
        ) : (
          <LanguageChoice place={place} language={show.language} onChange={(language) => put({ ...show, language })} />
        )}
        {t`Currency`}
        <DraftText
          label={t`${place}Currency, three letters`}
          width={56}
          placeholder={t`none`}
          value={show.currency}
          write={(currency) => currency ?? ''}
          read={(text) => (text.trim() === '' ? null : /^[A-Za-z]{3}$/.test(text.trim()) ? text.trim().toUpperCase() : null)}
          onChange={(currency) => put({ ...show, currency })}
        />
      </Line>
      {!inWords && (
        <Line>
          <Lead />
          <Toggled label={t`Group thousands`} value={show.thousands} onChange={(thousands) => put({ ...show, thousands })} />
          <Choice
            label={t`${place}Sign`}
            hideLabel
            small
            items={signs}
            value={show.sign}
            onChange={(sign) => put({ ...show, sign: sign as Digits['sign'] })}
          />
          <Choice
            label={t`${place}Percent`}
            hideLabel
            small
            items={percents}
            value={show.percent}
            onChange={(percent) => put({ ...show, percent: percent as Digits['percent'] })}
          />
        </Line>
      )}
    </>
  );
}
