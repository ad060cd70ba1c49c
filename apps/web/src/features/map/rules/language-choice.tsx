import { t } from '@mailbag/core/words';
import { Choice } from '../../../ui/choice';
import { languageName } from '../../language-name';

/** Languages that are offered; any other that a rule names is kept. */
const offered = ['en-GB', 'en-US', 'de', 'fr', 'es', 'it', 'nl', 'pl', 'uk', 'tr', 'ar'];

/** The language in which a date or number is written. */
export function LanguageChoice({
  place,
  language,
  onChange,
}: {
  place: string;
  language: string | null;
  onChange: (language: string | null) => void;
}) {
  const tags = language === null || offered.includes(language) ? offered : [language, ...offered];
  return (
    <Choice
      label={t`${place}Language`}
      hideLabel
      small
      items={[{ id: '', text: t`as the office writes` }, ...tags.map((id) => ({ id, text: languageName(id) }))]}
      value={language ?? ''}
      onChange={(id) => onChange(id === '' ? null : id)}
    />
  );
}
