import type { Column, ComposePart, Field, FillRule, Translation } from '@mailbag/core';
import { acceptedValues, beginRule, isButtonWithStates, isChoice, ruleForColumn, ruleTitle, rulesFor } from '@mailbag/core';
import { Plus, Wand2, X } from 'lucide-react';
import styled from 'styled-components';
import { color } from '../../theme';
import { Button, IconButton } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Row, Small, Stack } from '../../ui/layout';

const Frame = styled.div`
  background: ${color.plumWash};
  padding: 8px 12px 12px;
  display: flex;
  flex-direction: column;
  gap: 10px;
`;
const Line = styled(Row)`
  flex-wrap: wrap;
`;
const Part = styled.div`
  display: inline-flex;
  align-items: center;
  border: 1px solid ${color.line};
  border-radius: 6px;
  background: ${color.sheet};
  padding-left: 4px;
  & input {
    border: 0;
    background: none;
    width: 92px;
    padding: 3px 6px;
    outline: none;
  }
  & > button {
    padding: 0 4px !important;
    height: 26px;
  }
`;
const Pair = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 20px minmax(0, 1fr) 30px;
  gap: 6px;
  align-items: center;
`;

const columnItems = (columns: readonly Column[]) =>
  columns.map((column) => ({ id: column.name, text: column.name, detail: column.examples.slice(0, 3).join(' · ') || 'empty' }));

/** The rule of one field, edited in place. */
export function RuleEditor({
  field,
  rule,
  columns,
  onChange,
}: {
  field: Field;
  rule: FillRule | undefined;
  columns: readonly Column[];
  onChange: (rule: FillRule | undefined) => void;
}) {
  const isStates = isButtonWithStates(field) || isChoice(field);
  const kinds = rulesFor(field);
  if (rule && !kinds.some(({ kind }) => kind === rule.kind)) kinds.unshift({ kind: rule.kind, title: ruleTitle(rule.kind) });
  return (
    <Frame role="group" aria-label={`Rule for ${field.name}`}>
      <Line>
        <Small>Filled with</Small>
        <Choice
          label="Kind of rule"
          hideLabel
          small
          items={kinds.map(({ kind, title }) => ({ id: kind, text: title }))}
          value={rule?.kind ?? null}
          placeholder="nothing yet"
          onChange={(kind) => onChange(beginRule(kind as FillRule['kind'], field, columns, rule))}
        />
        {!rule && columns.length > 0 && (
          <Choice
            label="Column"
            hideLabel
            small
            items={columnItems(columns)}
            value={null}
            placeholder="Choose a column"
            onChange={(name) =>
              onChange(
                ruleForColumn(
                  field,
                  columns.find((one) => one.name === name)!,
                ),
              )
            }
          />
        )}
        {rule && (rule.kind === 'column' || rule.kind === 'translate') && (
          <Choice
            label="Column"
            hideLabel
            small
            items={columnItems(columns)}
            value={rule.column}
            placeholder={rule.column || 'Choose a column'}
            onChange={(name) =>
              onChange(
                isStates
                  ? ruleForColumn(
                      field,
                      columns.find((one) => one.name === name)!,
                    )
                  : { ...rule, column: name },
              )
            }
          />
        )}
        {rule?.kind === 'text' &&
          (acceptedValues(field).length > 0 ? (
            <Choice
              label="Value"
              hideLabel
              small
              items={acceptedValues(field).map((value) => ({ id: value, text: value }))}
              value={rule.text}
              onChange={(text) => onChange({ ...rule, text })}
            />
          ) : (
            <div style={{ width: 240 }}>
              <TextInput
                label="Fixed text"
                hideLabel
                value={rule.text}
                placeholder="The same in every copy"
                onChange={(text) => onChange({ ...rule, text })}
              />
            </div>
          ))}
        <div style={{ flex: 1 }} />
        {rule && (
          <Button small look="bare" onPress={() => onChange(undefined)}>
            Take the rule away
          </Button>
        )}
      </Line>
      {rule?.kind === 'compose' && <ComposeParts parts={rule.parts} columns={columns} onChange={(parts) => onChange({ ...rule, parts })} />}
      {rule?.kind === 'translate' && (
        <TranslationTable
          field={field}
          table={rule.table}
          column={columns.find((one) => one.name === rule.column)}
          onChange={(table) => onChange({ ...rule, table })}
        />
      )}
    </Frame>
  );
}

function ComposeParts({
  parts,
  columns,
  onChange,
}: {
  parts: ComposePart[];
  columns: readonly Column[];
  onChange: (parts: ComposePart[]) => void;
}) {
  const replace = (at: number, part: ComposePart): void => onChange(parts.map((one, index) => (index === at ? part : one)));
  const remove = (at: number): void => onChange(parts.filter((_, index) => index !== at));
  return (
    <Line $gap={6}>
      {parts.map((part, at) => (
        <Part key={at}>
          {'column' in part ? (
            <Choice
              label={`Column, part ${at + 1}`}
              hideLabel
              small
              items={columnItems(columns)}
              value={part.column}
              onChange={(column) => replace(at, { column })}
            />
          ) : (
            <input aria-label={`Text, part ${at + 1}`} value={part.text} onChange={(event) => replace(at, { text: event.target.value })} />
          )}
          <IconButton label={`Take part ${at + 1} away`} small onPress={() => remove(at)}>
            <X size={13} />
          </IconButton>
        </Part>
      ))}
      <Choice
        label="Add a column"
        hideLabel
        small
        items={columnItems(columns)}
        value={null}
        placeholder="Add a column"
        onChange={(column) => onChange([...parts, ...(parts.length > 0 && 'column' in parts.at(-1)! ? [{ text: ' ' }] : []), { column }])}
      />
      <Button small onPress={() => onChange([...parts, { text: ', ' }])}>
        <Plus size={13} />
        Add text
      </Button>
    </Line>
  );
}

function TranslationTable({
  field,
  table,
  column,
  onChange,
}: {
  field: Field;
  table: Translation[];
  column: Column | undefined;
  onChange: (table: Translation[]) => void;
}) {
  const targets =
    field.kind === 'checkbox'
      ? [
          { id: field.onValues[0] ?? 'Yes', text: 'ticked', detail: `on-value ${field.onValues[0] ?? 'Yes'}` },
          { id: 'Off', text: 'not ticked' },
        ]
      : field.kind === 'radio'
        ? [...field.onValues.map((on, index) => ({ id: on, text: field.options[index]?.label ?? on })), { id: '', text: 'none chosen' }]
        : [...field.options.map((one) => ({ id: one.value, text: one.label })), { id: '', text: 'left blank' }];
  const replace = (at: number, change: Partial<Translation>): void =>
    onChange(table.map((one, index) => (index === at ? { ...one, ...change } : one)));
  const missing = (column?.examples ?? []).filter(
    (example) => !table.some((one) => one.from.trim().toLowerCase() === example.trim().toLowerCase()),
  );
  return (
    <Stack $gap={6}>
      <Pair>
        <Small>{column ? `When “${column.name}” says` : 'When the column says'}</Small>
        <span />
        <Small>the field is</Small>
        <span />
      </Pair>
      {table.map((one, at) => (
        <Pair key={at}>
          <TextInput label={`Value ${at + 1}`} hideLabel value={one.from} onChange={(from) => replace(at, { from })} />
          <span aria-hidden>→</span>
          <Choice
            label={`Becomes, value ${at + 1}`}
            hideLabel
            items={targets}
            value={targets.some(({ id }) => id === one.to) ? one.to : null}
            onChange={(to) => replace(at, { to })}
          />
          <IconButton label={`Take value ${at + 1} away`} onPress={() => onChange(table.filter((_, index) => index !== at))}>
            <X size={14} />
          </IconButton>
        </Pair>
      ))}
      <Line>
        <Button small onPress={() => onChange([...table, { from: '', to: targets[0]?.id ?? '' }])}>
          <Plus size={13} />
          Add a value
        </Button>
        {missing.length > 0 && (
          <Button small onPress={() => onChange([...table, ...missing.map((from) => ({ from, to: targets[0]?.id ?? '' }))])}>
            <Wand2 size={13} />
            Add {missing.slice(0, 3).join(', ')} from the column
          </Button>
        )}
        <Small>A value that is not in this list is a stop, never a silent tick.</Small>
      </Line>
    </Stack>
  );
}
