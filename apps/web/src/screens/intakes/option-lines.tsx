import { t } from '@mailbag/core/words';
import type { IntakeOption } from '@mailbag/core';
import { ArrowDown, ArrowUp, Plus, X } from 'lucide-react';
import { Button, IconButton } from '../../ui/button';
import { TextInput } from '../../ui/field';
import { Row, Small, Stack } from '../../ui/layout';

interface Props {
  options: readonly IntakeOption[];
  /** Boxes of a form stand for the options, so that a new one fills none by itself. */
  isOnForm: boolean;
  onChange: (options: IntakeOption[]) => void;
}

const swapped = (options: readonly IntakeOption[], at: number, by: -1 | 1): IntakeOption[] => {
  const next = [...options];
  [next[at], next[at + by]] = [next[at + by]!, next[at]!];
  return next;
};

/** A value that no option has, without the commas that part several. */
function freeValue(options: readonly IntakeOption[]): string {
  for (let number = options.length + 1; ; number++)
    if (!options.some(({ value }) => value === `Option ${number}`)) return t`Option ${number}`;
}

/** What can be chosen, in the words that the visitor reads, beside what the record is given. */
export function OptionLines({ options, isOnForm, onChange }: Props) {
  return (
    <Stack $gap={4} role="group" aria-label={t`Options`}>
      <Small>{t`Options`}</Small>
      {options.map((option, at) => (
        <Row key={option.value} $gap={4}>
          <div style={{ flex: 1 }}>
            <TextInput
              label={t`Words of option ${at + 1}`}
              hideLabel
              value={option.say}
              onChange={(say) => onChange(options.map((one, index) => (index === at ? { ...one, say } : one)))}
            />
          </div>
          {option.say !== option.value && <Small style={{ maxWidth: 140 }}>{t`gives “${option.value}”`}</Small>}
          <IconButton
            label={t`Move option ${at + 1} up`}
            small
            changes
            isDisabled={at === 0}
            onPress={() => onChange(swapped(options, at, -1))}
          >
            <ArrowUp size={14} />
          </IconButton>
          <IconButton
            label={t`Move option ${at + 1} down`}
            small
            changes
            isDisabled={at === options.length - 1}
            onPress={() => onChange(swapped(options, at, 1))}
          >
            <ArrowDown size={14} />
          </IconButton>
          <IconButton label={t`Remove option ${at + 1}`} small changes onPress={() => onChange(options.filter((_, index) => index !== at))}>
            <X size={14} />
          </IconButton>
        </Row>
      ))}
      <Row>
        <Button
          small
          look="bare"
          changes
          onPress={() => {
            const value = freeValue(options);
            onChange([...options, { value, say: value }]);
          }}
        >
          <Plus size={14} />
          {t`Option`}
        </Button>
        {isOnForm && <Small>{t`A new option fills no box until the map says which.`}</Small>}
      </Row>
    </Stack>
  );
}
