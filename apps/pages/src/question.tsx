import type { AnswerValue, IntakeQuestion } from '@mailbag/core/intake';
import { NO, YES, isPictureKind } from '@mailbag/core/intake';
import type { HTMLAttributes } from 'react';
import type { Fault } from './api';
import { autofillOf } from './autofill';
import { OfficeText, useOfficeLang } from './office-text';
import { PictureInput } from './picture-input';
import { SignatureInput } from './signature-input';
import { Area, Asked, AskedGroup, Choice, Choices, FaultLine, Help, Input, Legend, Words } from './styles';
import type { Say } from './words';
import type { en } from './words/en';

/** From how many options on they stand in a menu. */
const MANY_OPTIONS = 8;

const inputModes: Partial<Record<IntakeQuestion['kind'], HTMLAttributes<HTMLInputElement>['inputMode']>> = {
  number: 'decimal',
  amount: 'decimal',
  'e-mail': 'email',
  telephone: 'tel',
};

/** What is wrong with an answer, in the visitor's language. */
export function faultWords({ code, detail }: Fault, { kind }: Pick<IntakeQuestion, 'kind'>, say: Say): string {
  const special =
    code === 'odd' && (kind === 'IBAN' || kind === 'telephone' || kind === 'postal code') ? (`fault-odd-${kind}` as const) : null;
  // A day is the same one wherever the visitor is.
  const day = new Date(code === 'too-early' || code === 'too-late' ? `${detail}T12:00` : 0);
  return say(special ?? (`fault-${code}` as keyof typeof en), { detail: Number(detail) || 0, text: detail, day });
}

interface Props {
  question: IntakeQuestion;
  answer: AnswerValue | undefined;
  fault: Fault | undefined;
  say: Say;
  onChange: (answer: AnswerValue) => void;
  /** The visitor has gone on from it. */
  onLeave: () => void;
}

/** One question with what answers it. */
export function Question({ question, answer, fault, say, onChange, onLeave }: Props) {
  const { id, words, kind, required, help, options, limit } = question;
  const langOf = useOfficeLang();
  const text = typeof answer === 'string' ? answer : '';
  const [helpId, faultId] = [`help-${id}`, `fault-${id}`];
  const describedBy = [help && helpId, fault && faultId].filter(Boolean).join(' ') || undefined;
  const optional = required ? null : <small>{say('optional')}</small>;
  const about = (
    <>
      {help && (
        <Help id={helpId}>
          <OfficeText>{help}</OfficeText>
        </Help>
      )}
      {fault && <FaultLine id={faultId}>{faultWords(fault, question, say)}</FaultLine>}
    </>
  );
  if (kind === 'notice')
    return (
      <p style={{ whiteSpace: 'pre-line' }}>
        <OfficeText>{words}</OfficeText>
      </p>
    );
  if (kind === 'consent')
    return (
      <Asked>
        <p style={{ whiteSpace: 'pre-line' }}>
          <OfficeText>{words}</OfficeText>
        </p>
        {about}
        <Choice>
          <input
            id={`q-${id}`}
            type="checkbox"
            checked={text === YES}
            aria-describedby={describedBy}
            aria-invalid={fault !== undefined}
            aria-required={required}
            aria-label={`${say('agree')}: ${words}`}
            onChange={({ target }) => onChange(target.checked ? YES : '')}
          />
          {say('agree')}
          {optional}
        </Choice>
      </Asked>
    );
  const choices = kind === 'yes or no' ? [YES, NO].map((value) => ({ value, say: say(value as 'yes' | 'no') })) : options;
  const isGroup = kind === 'yes or no' || kind === 'some of' || (kind === 'one of' && options.length < MANY_OPTIONS);
  if (isGroup) {
    const chosen = Array.isArray(answer) ? answer : text === '' ? [] : [text];
    return (
      <AskedGroup id={`q-${id}`} aria-describedby={describedBy} tabIndex={-1}>
        <Legend>
          <OfficeText>{words}</OfficeText>
          {optional}
        </Legend>
        {about}
        <Choices data-two={kind === 'yes or no' || undefined}>
          {choices.map((option) => (
            <Choice key={option.value}>
              <input
                type={kind === 'some of' ? 'checkbox' : 'radio'}
                name={id}
                value={option.value}
                checked={chosen.includes(option.value)}
                aria-invalid={fault !== undefined}
                onChange={({ target }) =>
                  onChange(
                    kind !== 'some of'
                      ? option.value
                      : target.checked
                        ? options.map(({ value }) => value).filter((value) => value === option.value || chosen.includes(value))
                        : chosen.filter((value) => value !== option.value),
                  )
                }
              />
              {kind === 'yes or no' ? option.say : <OfficeText>{option.say}</OfficeText>}
            </Choice>
          ))}
        </Choices>
      </AskedGroup>
    );
  }
  if (isPictureKind(kind)) {
    const common = { id: `q-${id}`, value: text, describedBy, isWrong: fault !== undefined, say, onChange };
    return (
      <AskedGroup aria-describedby={describedBy}>
        <Legend>
          <OfficeText>{words}</OfficeText>
          {optional}
        </Legend>
        {about}
        {kind === 'signature' ? <SignatureInput {...common} label={words} /> : <PictureInput {...common} />}
      </AskedGroup>
    );
  }
  const common = {
    id: `q-${id}`,
    value: text,
    'aria-describedby': describedBy,
    'aria-invalid': fault !== undefined,
    'aria-required': required,
    onBlur: onLeave,
  };
  return (
    <Asked>
      <Words htmlFor={`q-${id}`}>
        <OfficeText>{words}</OfficeText>
        {optional}
      </Words>
      {about}
      {kind === 'one of' ? (
        <Input as="select" {...common} onChange={({ target }) => onChange(target.value)}>
          <option value="">{say('choose')}</option>
          {options.map((option) => (
            <option key={option.value} value={option.value} {...langOf(option.say)}>
              {option.say}
            </option>
          ))}
        </Input>
      ) : kind === 'long text' ? (
        <Area {...common} rows={4} {...(limit !== null && { maxLength: limit })} onChange={({ target }) => onChange(target.value)} />
      ) : (
        <Input
          {...common}
          type={kind === 'e-mail' ? 'email' : kind === 'telephone' ? 'tel' : 'text'}
          inputMode={inputModes[kind]}
          autoComplete={autofillOf(question) ?? 'off'}
          {...(kind === 'date' && { placeholder: say('dateHint') })}
          {...(kind === 'postal code' && { autoCapitalize: 'characters' })}
          {...((kind === 'IBAN' || kind === 'e-mail') && { autoCapitalize: 'off', spellCheck: false })}
          {...(limit !== null && kind === 'text' && { maxLength: limit })}
          onChange={({ target }) => onChange(target.value)}
        />
      )}
    </Asked>
  );
}
