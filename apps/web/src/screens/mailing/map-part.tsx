import type { TemplateDetail } from '@mailbag/contract';
import type { Evaluation, Field, FieldMap, FieldValue, FillNote, FillRule } from '@mailbag/core';
import {
  SAMPLE_CODE,
  evaluateMap,
  fieldLabel,
  fillContext,
  graphemeCount,
  isFillable,
  isRequired,
  rowReader,
  ruleForColumn,
  suggestRules,
  unusedColumns,
} from '@mailbag/core';
import { Check, CircleAlert, Minus, Ruler, Sparkles } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useRecord } from '../../api/queries';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { RecordBar } from '../../features/map/record-bar';
import { RuleEditor } from '../../features/map/rule-editor';
import { RuleWords } from '../../features/map/rule-words';
import { useFilled } from '../../features/map/use-filled';
import { PdfPages } from '../../features/page/pdf-pages';
import { Zoom } from '../../features/page/zoom';
import { counted } from '../../features/when';
import type { Tone } from '../../theme';
import { color, font } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Bar, Empty, Pane, Scroll, Small, Split } from '../../ui/layout';
import { Chip, Mark, Notice, Say } from '../../ui/mark';
import { revealChosen } from '../../ui/reveal';

const Sheet = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 34fr) minmax(0, 36fr) minmax(0, 22fr) 88px;
  & > .head {
    position: sticky;
    top: 0;
    z-index: 2;
    background: ${color.sheet};
    font-size: 12px;
    line-height: 16px;
    color: ${color.faded};
    padding: 6px 8px;
    border-bottom: 1px solid ${color.line};
  }
  & > .group {
    grid-column: 1 / -1;
    position: sticky;
    top: 28px;
    z-index: 1;
    background: ${color.paper};
    padding: 5px 8px;
    border-bottom: 1px solid ${color.hair};
    font: 600 14px/18px ${font.head};
  }
  & > .editor {
    grid-column: 1 / -1;
    border-bottom: 1px solid ${color.hair};
  }
`;
const RowLine = styled.div`
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: subgrid;
  border: 0;
  border-bottom: 1px solid ${color.hair};
  background: none;
  text-align: left;
  cursor: pointer;
  & > div {
    padding: 5px 8px;
    line-height: 18px;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  & code {
    display: block;
    color: ${color.faded};
    line-height: 14px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  &:hover,
  &[data-pointed] {
    background: ${color.paper};
  }
  &[data-chosen] {
    background: ${color.plumWash};
  }
`;

interface Entry {
  template: TemplateDetail;
  field: Field;
  rule: FillRule | undefined;
  suggested: FillRule | undefined;
}

const words = (field: Field, value: FieldValue | undefined): string => {
  if (value === undefined) return '—';
  if (value === true) return 'ticked';
  if (value === false) return field.kind === 'checkbox' ? 'not ticked' : 'none chosen';
  if (Array.isArray(value)) return value.join(', ') || 'blank';
  if (field.kind === 'checkbox') return 'ticked';
  return field.options.find((option) => option.value === value)?.label ?? (value === '' ? 'blank' : value);
};

function markOf(
  { field, rule }: Entry,
  evaluation: Evaluation | null,
  notes: readonly FillNote[],
  hasRecords: boolean,
): { tone: Tone; word: string; icon: React.ReactNode } {
  const problem = evaluation?.problems.find((one) => one.field === field.name);
  const note = notes.find((one) => one.field === field.name);
  const value = evaluation?.values[field.name];
  const isBlank = value === undefined || value === '' || value === false || (Array.isArray(value) && value.length === 0);
  if (problem) return { tone: 'brick', word: 'unknown', icon: <CircleAlert /> };
  if (isRequired(field) && (!rule || (hasRecords && evaluation && isBlank)))
    return { tone: 'brick', word: 'required', icon: <CircleAlert /> };
  if (note && note.characters.length > 0) return { tone: 'brick', word: 'no face', icon: <CircleAlert /> };
  if (typeof value === 'string' && field.maxLength !== null && graphemeCount(value.normalize('NFC')) > field.maxLength)
    return { tone: 'brick', word: 'too long', icon: <CircleAlert /> };
  if (note?.fit === 'overflows') return { tone: 'brick', word: 'too long', icon: <Ruler /> };
  if (note?.fit === 'tight') return { tone: 'ochre', word: 'tight', icon: <Ruler /> };
  if (!rule) return { tone: 'plain', word: 'open', icon: <Minus /> };
  if (isBlank) return { tone: 'plain', word: 'blank', icon: <Minus /> };
  return { tone: 'moss', word: 'fits', icon: <Check /> };
}

type Show = 'all' | 'open' | 'suggested' | 'trouble';

/** The fill sheet beside the filled page. */
export function MapPart({ work }: { work: MailingWork }) {
  const { mailing, plan, change, columns, index } = work;
  const [chosen, setChosen] = useState<{ template: number; field: string } | null>(null);
  const [pointed, setPointed] = useState<string | null>(null);
  const [shownTemplate, setShownTemplate] = useState<number | null>(null);
  const [show, setShow] = useState<Show>('all');
  const [text, setText] = useState('');
  const [zoom, setZoom] = useState(1);
  const list = useRef<HTMLDivElement>(null);
  const { record } = useRecord(plan.sourceId ?? null, index);

  const templates = useMemo(
    () => plan.packet.flatMap((id) => mailing.templates.find((one) => one.id === id) ?? []),
    [plan.packet, mailing.templates],
  );
  const mapOf = (id: number): FieldMap => plan.maps[id] ?? {};
  const template = templates.find(({ id }) => id === shownTemplate) ?? templates[0];
  const map = template ? plan.maps[template.id] : undefined;
  const context = useMemo(() => fillContext(mailing.next, index, SAMPLE_CODE), [mailing.next, index]);
  const filled = useFilled(
    template,
    useMemo(() => map ?? {}, [map]),
    record,
    columns,
    context,
    plan.output,
  );

  const suggestions = useMemo(
    () => new Map(templates.map((one) => [one.id, suggestRules(one.fieldList, columns, plan.maps[one.id] ?? {})])),
    [templates, columns, plan.maps],
  );
  const evaluations = useMemo(
    () =>
      new Map(
        templates.map((one) => [
          one.id,
          record ? evaluateMap(one.fieldList, plan.maps[one.id] ?? {}, rowReader(columns)(record), context) : null,
        ]),
      ),
    [templates, columns, plan.maps, record, context],
  );
  const entries: Entry[] = templates.flatMap((one) =>
    one.fieldList
      .filter(isFillable)
      .map((field) => ({ template: one, field, rule: mapOf(one.id)[field.name], suggested: suggestions.get(one.id)?.[field.name] })),
  );
  const notesFor = (id: number): readonly FillNote[] => (id === template?.id ? filled.notes : []);
  const markFor = (entry: Entry) => markOf(entry, evaluations.get(entry.template.id) ?? null, notesFor(entry.template.id), record !== null);
  const wanted = text.trim().toLowerCase();
  const visible = entries.filter((entry) => {
    if (show === 'open' && entry.rule) return false;
    if (show === 'suggested' && !entry.suggested) return false;
    if (show === 'trouble' && !['brick', 'ochre'].includes(markFor(entry).tone)) return false;
    if (!wanted) return true;
    const value = words(entry.field, evaluations.get(entry.template.id)?.values[entry.field.name]);
    return `${entry.field.name} ${fieldLabel(entry.field)} ${JSON.stringify(entry.rule ?? '')} ${value}`.toLowerCase().includes(wanted);
  });
  const suggestedCount = entries.filter((entry) => entry.suggested).length;

  const setRule = (templateId: number, field: string, rule: FillRule | undefined): void =>
    change((one) => {
      const { [field]: _before, ...rest } = one.maps[templateId] ?? {};
      return { ...one, maps: { ...one.maps, [templateId]: rule ? { ...rest, [field]: rule } : rest } };
    });
  const acceptAll = (): void =>
    change((one) => ({
      ...one,
      maps: { ...one.maps, ...Object.fromEntries(templates.map(({ id }) => [id, { ...(one.maps[id] ?? {}), ...suggestions.get(id) }])) },
    }));
  const choose = (templateId: number, field: string): void => {
    setShownTemplate(templateId);
    setChosen((before) => (before?.template === templateId && before.field === field ? null : { template: templateId, field }));
  };
  useEffect(() => {
    revealChosen(list.current);
  }, [chosen]);

  const unused = unusedColumns(
    columns,
    templates.map(({ id }) => mapOf(id)),
    [plan.keyColumn, plan.message.addressColumn].filter((one) => one !== null && one !== undefined),
  );
  const marks = new Map(
    entries
      .filter((entry) => entry.template.id === template?.id)
      .flatMap((entry) => {
        const { tone } = markFor(entry);
        return tone === 'brick' ? [[entry.field.name, tone] as const] : [];
      }),
  );
  const keyText = record?.cells[columns.findIndex(({ name }) => name === plan.keyColumn)]?.text;
  const groups = [...Map.groupBy(visible, ({ template: one, field }) => `${one.id} ${field.page}`).values()];

  if (templates.length === 0)
    return (
      <Empty title="Nothing to map yet" action={<Link to={`/mailings/${mailing.id}/packet`}>Put templates into the packet</Link>}>
        The fields of the packet’s templates will stand here, beside the page as it will be filled.
      </Empty>
    );
  return (
    <Split $columns="minmax(0, 56fr) minmax(0, 44fr)">
      <Pane aria-label="Fill sheet">
        <Bar>
          <div style={{ width: 190 }}>
            <TextInput label="Search the fill sheet" hideLabel placeholder="Field, column or value" value={text} onChange={setText} />
          </div>
          {suggestedCount > 0 && (
            <Button changes small onPress={acceptAll} tip="Take over every suggested rule; one step to undo">
              <Sparkles size={14} />
              Accept {counted(suggestedCount, 'suggestion')}
            </Button>
          )}
          <div className="fill" />
          <Choice
            label="Show"
            hideLabel
            small
            items={[
              { id: 'all', text: 'All fields' },
              { id: 'open', text: 'Without a rule' },
              { id: 'suggested', text: 'With a suggestion' },
              { id: 'trouble', text: 'With trouble here' },
            ]}
            value={show}
            onChange={(id) => setShow(id as Show)}
          />
        </Bar>
        <Scroll ref={list}>
          <Sheet>
            <div className="head">Field</div>
            <div className="head">Filled with</div>
            <div className="head">{keyText ? `For ${plan.keyColumn} ${keyText}` : 'For this record'}</div>
            <div className="head" />
            {groups.map((group) => {
              const { template: one, field: first } = group[0]!;
              return [
                <div className="group" key={`${one.id} ${first.page}`}>
                  {one.name}{' '}
                  <Small style={{ fontFamily: font.text, fontWeight: 400 }}>
                    {first.page > 0 ? `page ${first.page}` : 'on no page'} · {counted(group.length, 'field')}
                  </Small>
                </div>,
                ...group.map((entry) => {
                  const { field, rule, suggested } = entry;
                  const isChosen = chosen?.template === one.id && chosen.field === field.name;
                  const evaluation = evaluations.get(one.id);
                  const mark = markFor(entry);
                  return [
                    <RowLine
                      key={`${one.id} ${field.name}`}
                      role="button"
                      tabIndex={0}
                      aria-expanded={isChosen}
                      aria-label={fieldLabel(field)}
                      data-chosen={isChosen || undefined}
                      data-pointed={(pointed === field.name && one.id === template?.id) || undefined}
                      onClick={() => choose(one.id, field.name)}
                      onKeyDown={(event) => {
                        if (event.target !== event.currentTarget) return;
                        if (event.key === 'Enter' || event.key === ' ') {
                          event.preventDefault();
                          choose(one.id, field.name);
                        }
                      }}
                      onMouseEnter={() => setPointed(field.name)}
                      onMouseLeave={() => setPointed(null)}
                    >
                      <div>
                        {fieldLabel(field)}
                        <code title={field.name}>{field.name}</code>
                      </div>
                      <div>
                        {rule ? (
                          <RuleWords rule={rule} />
                        ) : suggested ? (
                          <span onClick={(event) => event.stopPropagation()}>
                            <RuleWords rule={suggested} />
                            <Button
                              small
                              look="plain"
                              onPress={() => setRule(one.id, field.name, suggested)}
                              aria-label={`Accept the suggestion for ${fieldLabel(field)}`}
                            >
                              <Sparkles size={12} />
                              Accept
                            </Button>
                          </span>
                        ) : (
                          <Say>nothing yet</Say>
                        )}
                      </div>
                      <div>{words(field, evaluation?.values[field.name])}</div>
                      <div>
                        <Mark $tone={mark.tone}>
                          {mark.icon}
                          {mark.word}
                        </Mark>
                      </div>
                    </RowLine>,
                    isChosen && (
                      <div className="editor" key={`${one.id} ${field.name} editor`}>
                        <RuleEditor field={field} rule={rule} columns={columns} onChange={(next) => setRule(one.id, field.name, next)} />
                        {evaluation?.problems
                          .filter((problem) => problem.field === field.name)
                          .map((problem) => (
                            <Notice key={problem.field} tone="brick">
                              “{problem.untranslated.text}” is not among the values that are translated:{' '}
                              {problem.untranslated.accepted.join(', ')}.
                            </Notice>
                          ))}
                      </div>
                    ),
                  ];
                }),
              ];
            })}
          </Sheet>
          {visible.length === 0 && (
            <Empty title="No field here">{show === 'open' ? 'Every field has a rule.' : 'Change the search or what is shown.'}</Empty>
          )}
        </Scroll>
        {columns.length > 0 && (
          <Bar style={{ borderTop: `1px solid ${color.line}`, borderBottom: 0, flexWrap: 'wrap', maxHeight: 84, overflow: 'auto' }}>
            <Small>{unused.length === 0 ? 'Every column is used.' : `${counted(unused.length, 'column')} that nothing uses:`}</Small>
            {unused.map((name) => (
              <Chip
                key={name}
                $column
                title={chosen ? `Fill the chosen field with ${name}` : columns.find((column) => column.name === name)?.examples.join(' · ')}
                style={{ cursor: chosen ? 'pointer' : 'default', margin: 0 }}
                onClick={() => {
                  const field = entries.find((entry) => entry.template.id === chosen?.template && entry.field.name === chosen.field)?.field;
                  const column = columns.find((one) => one.name === name);
                  if (chosen && field && column) setRule(chosen.template, chosen.field, ruleForColumn(field, column));
                }}
              >
                {name}
              </Chip>
            ))}
          </Bar>
        )}
      </Pane>
      <Pane aria-label="Filled page">
        <RecordBar work={work} />
        <Bar>
          {templates.length > 1 ? (
            templates.map((one) => (
              <Button
                key={one.id}
                small
                look="bare"
                pressed={one.id === template?.id}
                onPress={() => setShownTemplate(one.id)}
                style={{ minWidth: 0, flexShrink: 1, overflow: 'hidden' }}
              >
                <span style={{ overflow: 'hidden', textOverflow: 'ellipsis' }}>{one.name}</span>
              </Button>
            ))
          ) : (
            <Small>{template?.name}</Small>
          )}
          <div className="fill" />
          <Zoom zoom={zoom} onZoom={setZoom} />
        </Bar>
        {filled.error && <Notice tone="brick">{filled.error}</Notice>}
        {template && (
          <PdfPages
            bytes={filled.bytes}
            pages={template.pageSizes}
            fields={template.fieldList}
            chosen={chosen?.template === template.id ? chosen.field : null}
            pointed={pointed}
            onChoose={(field) => choose(template.id, field)}
            onPoint={setPointed}
            marks={marks}
            zoom={zoom}
          />
        )}
      </Pane>
    </Split>
  );
}
