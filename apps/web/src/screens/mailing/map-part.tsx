import { plural, t } from '@mailbag/core/words';
import type { TemplateDetail } from '@mailbag/contract';
import type { PacketTemplate, Column, Evaluation, FieldMap, FillNote, FillRule } from '@mailbag/core';
import {
  SAMPLE_CODE,
  SURE,
  evaluateTemplate,
  isCannot,
  packetColumns,
  fieldLabel,
  fillContext,
  readsColumns,
  recordOf,
  rowReader,
  rowsFor,
  ruleForColumn,
  unusedColumns,
  workOn,
} from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { LayoutGrid, Sparkles } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { queries, useRecord } from '../../api/queries';
import type { MailingWork } from '../../features/mailing/mailing-context';
import type { FieldMark } from '../../features/map/field-mark';
import { fieldMark, worstMark } from '../../features/map/field-mark';
import type { ChosenField } from '../../features/map/fill-sheet';
import type { PacketEntry } from '../../features/map/packet-entries';
import { boxesIn, mapsWithRule, packetEntries, placesOf } from '../../features/map/packet-entries';
import { answerWords } from '../../features/map/sheet-entries';
import { FillSheet } from '../../features/map/fill-sheet';
import { Distribution } from '../../features/map/distribution';
import { RecordBar } from '../../features/map/record-bar';
import { RuleHanding } from '../../features/map/rule-handing';
import { MissingColumns } from '../../features/map/missing-columns';
import { withColumns } from '../../features/map/with-columns';
import { RecordRow } from '../../features/map/record-row';
import { recordWords } from '../../features/map/record-words';
import { ChangedSince } from '../../features/map/changed-since';
import { ColumnStrip } from '../../features/map/column-strip';
import { DragMapping } from '../../features/map/drag-mapping';
import { WhichCopy } from '../../features/map/which-copy';
import { PageBar } from '../../features/map/page-bar';
import { FilledPages } from '../../features/map/filled-pages';
import { worstCase } from '../../features/map/worst-case';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Bar, Empty, Pane, Scroll } from '../../ui/layout';
import { Split } from '../../ui/split';
import { Notice } from '../../ui/mark';
import { LinkButton } from '../../ui/link-button';
import { revealChosen } from '../../ui/reveal';
import { useKey } from '../../ui/use-key';
import { useAddress } from '../../ui/use-address';

const NO_NOTES: readonly FillNote[] = [];
type Show = 'all' | 'open' | 'suggested' | 'trouble';

/** The fill sheet beside the filled page. */
export default function MapPart({ work: mailingWork }: { work: MailingWork }) {
  const { mailing, plan, change, columns, index } = mailingWork;
  const { query, put } = useAddress();
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
  const asked = { template: Number(query.get('template')), field: query.get('field') };
  const template = templates.find(({ id }) => id === (shownTemplate ?? asked.template)) ?? templates[0];
  const map = template ? plan.maps[template.id] : undefined;
  const [showsRow, setShowsRow] = useState(false);
  const [isWorst, setWorst] = useState(false);
  const [copied, setCopied] = useState<FillRule | null>(null);
  const { data: survey, isFetching: isSurveying } = useQuery({ ...queries.survey(mailing.id), enabled: isWorst && record !== null });
  /** The longest value of each field by template; null: the record is shown as it is. */
  const worst = useMemo(
    () => (isWorst && survey ? new Map(templates.map((one) => [one.id, worstCase(survey, one)])) : null),
    [isWorst, survey, templates],
  );
  const packetTemplate = useCallback(
    (one: TemplateDetail): PacketTemplate => ({
      fields: one.fieldList,
      map: plan.maps[one.id] ?? {},
      when: plan.conditions?.[one.id] ?? null,
      count: plan.counts?.[one.id] ?? null,
    }),
    [plan.maps, plan.conditions, plan.counts],
  );
  useKey('w', t`Worst case`, record ? () => setWorst(!isWorst) : null);
  const context = useMemo(() => fillContext(mailing.next, index, SAMPLE_CODE), [mailing.next, index]);
  const [wantedPart, setPart] = useState(0);
  /** The record as each of its copies of the template that is shown sees it. */
  const rows = useMemo(
    () => (template && record ? rowsFor(packetTemplate(template), rowReader(columns)(record), context) : []),
    [template, record, packetTemplate, columns, context],
  );
  const part = isCannot(rows) ? 0 : Math.max(0, Math.min(wantedPart, rows.length - 1));
  const shownRow = isCannot(rows) ? undefined : rows[part];
  /** What the page says of the values that it is filled with. */
  const [notes, setNotes] = useState<readonly FillNote[]>(NO_NOTES);
  const shownMap = useMemo(() => map ?? {}, [map]);
  const shownRecord = useMemo(() => (shownRow ? recordOf(shownRow, columns) : record), [shownRow, columns, record]);

  const work = useMemo(
    () => (record ? workOn(shownRow ?? rowReader(columns)(record), context) : null),
    [record, shownRow, columns, context],
  );
  const evaluations = useMemo(
    () =>
      new Map(
        templates.map((one): [number, Evaluation | null] => {
          if (worst) return [one.id, { values: worst.get(one.id) ?? {}, problems: [] }];
          const copies = record ? evaluateTemplate(packetTemplate(one), rowReader(columns)(record), context) : [];
          return [one.id, copies[one.id === template?.id ? part : 0] ?? null];
        }),
      ),
    [templates, columns, packetTemplate, record, context, worst, template, part],
  );
  const { data: lastCopy } = useQuery({ ...queries.lastCopy(mailing.id, index), enabled: record !== null && mailing.batches.length > 0 });
  const { data: learned } = useQuery(queries.learned(mailing.id));
  const entries = useMemo(() => packetEntries(templates, plan.maps, columns, learned?.items), [templates, plan.maps, columns, learned]);
  const notesFor = (id: number): readonly FillNote[] => (id === template?.id ? notes : NO_NOTES);
  const markFor = (entry: PacketEntry): FieldMark =>
    worstMark(
      placesOf(entry).flatMap(({ template: { id }, parts }) =>
        parts.map((field) => fieldMark(field, mapOf(id)[field.name], (record && evaluations.get(id)) ?? null, notesFor(id))),
      ),
    );
  const wanted = text.trim().toLowerCase();
  const visible = entries.filter((entry) => {
    if (show === 'open' && (entry.rule || entry.isMixed)) return false;
    if (show === 'suggested' && !entry.suggested) return false;
    if (show === 'trouble' && !['brick', 'ochre'].includes(markFor(entry).tone)) return false;
    if (!wanted) return true;
    const value = answerWords(entry, evaluations.get(entry.template.id));
    const names = placesOf(entry)
      .flatMap(({ parts }) => parts.map(({ name }) => name))
      .join(' ');
    return `${names} ${fieldLabel(entry.field)} ${JSON.stringify(entry.rule ?? '')} ${value}`.toLowerCase().includes(wanted);
  });
  const suggestedCount = entries.filter((entry) => entry.suggested).length;

  const setRules = (filling: readonly (readonly [entry: PacketEntry, rule: FillRule | undefined])[]): void =>
    change((one) => ({ ...one, maps: filling.reduce((maps, [entry, rule]) => mapsWithRule(maps, entry, rule), one.maps) }));
  const setRule = (entry: PacketEntry, rule: FillRule | undefined): void => setRules([[entry, rule]]);
  /** One box of an answer is filled otherwise than the others. */
  const setPiece = (templateId: number, field: string, rule: FillRule | undefined): void =>
    change((one) => {
      const { [field]: _before, ...rest } = one.maps[templateId] ?? {};
      return { ...one, maps: { ...one.maps, [templateId]: rule ? { ...rest, [field]: rule } : rest } };
    });
  const accept = (some: readonly PacketEntry[]): void =>
    setRules(some.flatMap((entry) => (entry.suggested ? [[entry, entry.suggested.rule] as const] : [])));
  const sure = entries.filter(({ suggested }) => suggested && suggested.confidence >= SURE);
  const entryOf = (templateId: number | undefined, name: string): PacketEntry | undefined =>
    entries.find((entry) => boxesIn(entry, templateId).includes(name));
  const choose = (templateId: number, name: string): void => {
    setShownTemplate(templateId);
    const entry = entryOf(templateId, name);
    // An answer of several templates stands where it comes first.
    const [owner, field] = entry ? [entry.template.id, entry.field.name] : [templateId, name];
    const isOpen = chosen?.template === owner && chosen.field === field;
    put({ template: isOpen ? null : owner, field: isOpen ? null : field });
  };
  const chosenEntry = asked.field === null ? undefined : entryOf(asked.template, asked.field);
  const chosen = chosenEntry ? { template: chosenEntry.template.id, field: chosenEntry.field.name } : null;
  useEffect(() => {
    revealChosen(list.current);
  }, [chosen?.template, chosen?.field]);

  const missing =
    columns.length === 0 ? [] : packetColumns(templates.map(packetTemplate)).filter((name) => !columns.some((one) => one.name === name));
  const unused = unusedColumns(
    columns,
    templates.map(({ id }) => mapOf(id)),
    [
      plan.keyColumn,
      plan.message.addressColumn,
      ...(plan.output.pictures ?? []).map(({ column }) => column),
      ...packetColumns(templates.map(packetTemplate)),
    ].filter((one) => one !== null && one !== undefined),
  );
  const wrong = entries
    .flatMap((entry) => {
      const boxes = boxesIn(entry, template?.id);
      return boxes.length > 0 && markFor(entry).tone === 'brick' ? boxes : [];
    })
    .join('\n');
  // The same as long as the same boxes are wrong, so that the page is not laid out anew for each letter.
  const marks = useMemo(() => new Map(wrong === '' ? [] : wrong.split('\n').map((name) => [name, 'brick'] as const)), [wrong]);
  const wordsOf = recordWords(columns, plan.keyColumn);
  const keyText = record ? wordsOf(record.cells).key : '';
  const pointedEntry = pointed === null ? undefined : entryOf(template?.id, pointed);
  const mapColumn = ({ template: owner, field }: ChosenField, name: string): void => {
    const [entry, column] = [entryOf(owner, field), columns.find((one) => one.name === name)];
    if (entry && column) setRule(entry, ruleForColumn(entry.field, column));
  };
  const fillChosen = (column: Column): void => {
    if (chosenEntry) setRule(chosenEntry, ruleForColumn(chosenEntry.field, column));
  };
  const partsOf = (name: string | null): string[] =>
    [entryOf(template?.id, name ?? '')].flatMap((entry) => (entry ? boxesIn(entry, template?.id) : []));

  /** Boxes of the chosen answer on the template that is shown. */
  const chosenBoxes = chosenEntry ? boxesIn(chosenEntry, template?.id) : [];
  const told = JSON.stringify(chosenBoxes);
  /** The same array as long as the same boxes are chosen. */
  const changing = useMemo(() => JSON.parse(told) as string[], [told]);
  const feeds = (pointed === null ? chosenBoxes : partsOf(pointed)).flatMap((name) => (map?.[name] ? readsColumns(map[name]) : []));

  if (templates.length === 0)
    return (
      <Empty
        title={t`Nothing to map yet`}
        action={<Link to={`/mailings/${mailing.id}/packet`}>{t`Put templates into the packet`}</Link>}
      >{t`The fields of the packet’s templates will stand here, beside the page as it will be filled.`}</Empty>
    );
  return (
    <DragMapping shownTemplate={template?.id} onOver={(over) => setPointed(over ? over.field : null)} onMap={mapColumn}>
      <Split $columns="minmax(0, 56fr) minmax(0, 44fr)">
        <Pane aria-label={t`Fill sheet`}>
          <Bar>
            <div style={{ width: 190 }}>
              <TextInput
                label={t`Search the fill sheet`}
                hideLabel
                placeholder={t`Field, column or value`}
                value={text}
                onChange={setText}
              />
            </div>
            {sure.length > 0 && sure.length < suggestedCount && (
              <Button changes small onPress={() => accept(sure)} tip={t`Take over the rules that are sure; one step to undo`}>
                <Sparkles size={14} />
                {t`Accept ${sure.length} sure`}
              </Button>
            )}
            {suggestedCount > 0 && (
              <Button
                changes
                small
                aria-label={t`Accept ${plural(suggestedCount, 'suggestion')}`}
                onPress={() => accept(entries)}
                tip={t`Take over every suggested rule; one step to undo`}
              >
                <Sparkles size={14} />
                {sure.length > 0 && sure.length < suggestedCount
                  ? t`All ${suggestedCount}`
                  : t`Accept ${plural(suggestedCount, 'suggestion')}`}
              </Button>
            )}
            <LinkButton to={`/mailings/${mailing.id}/contact`} $small $look="bare">
              <LayoutGrid size={14} />
              {t`Contact sheet`}
            </LinkButton>
            <div className="fill" />
            <Choice
              label={t`Show`}
              hideLabel
              small
              items={[
                { id: 'all', text: t`All fields` },
                { id: 'open', text: t`Without a rule` },
                { id: 'suggested', text: t`With a suggestion` },
                { id: 'trouble', text: t`With trouble here` },
              ]}
              value={show}
              onChange={(id) => setShow(id as Show)}
            />
          </Bar>
          {missing.length > 0 && (
            <MissingColumns missing={missing} columns={columns} onLink={(names) => change((one) => withColumns(one, names, columns))} />
          )}
          <Scroll ref={list}>
            <FillSheet
              entries={visible}
              columns={columns}
              work={work}
              locale={context.locale}
              whose={worst ? t`Longest of all` : keyText ? t`For ${plan.keyColumn} ${keyText}` : t`For this record`}
              maps={plan.maps}
              evaluations={evaluations}
              markFor={markFor}
              chosen={chosen}
              pointed={pointedEntry ? { template: pointedEntry.template.id, field: pointedEntry.field.name } : null}
              onChoose={choose}
              onPoint={setPointed}
              onRule={setRule}
              onPiece={setPiece}
              onAccept={accept}
              handing={(entry) => (
                <RuleHanding entry={entry} entries={entries} columns={columns} copied={copied} onCopy={setCopied} onRules={setRules} />
              )}
              distribution={(one, field) =>
                record &&
                plan.maps[one]?.[field.name] && (
                  <Distribution
                    mailing={mailing.id}
                    template={one}
                    field={field}
                    about={(cells) => Object.values(wordsOf(cells)).filter(Boolean).join(' · ')}
                    onRecord={mailingWork.setIndex}
                  />
                )
              }
            />
            {visible.length === 0 && (
              <Empty title={t`No field here`}>
                {show === 'open' ? t`Every field has a rule.` : t`Change the search or what is shown.`}
              </Empty>
            )}
          </Scroll>
          {columns.length > 0 && <ColumnStrip columns={columns} unused={unused} fills={chosenEntry ? fillChosen : null} />}
        </Pane>
        <Pane aria-label={t`Filled page`}>
          <RecordBar work={mailingWork} />
          {showsRow && record && <RecordRow columns={columns} record={record} feeds={feeds} changed={lastCopy?.changed ?? []} />}
          <PageBar
            templates={templates}
            template={template}
            onTemplate={setShownTemplate}
            hasRecord={record !== null}
            showsRow={showsRow}
            onRow={setShowsRow}
            isWorst={isWorst}
            onWorst={setWorst}
            zoom={zoom}
            onZoom={setZoom}
          />
          {lastCopy && !worst && <ChangedSince lastCopy={lastCopy} />}
          {isWorst && (
            <Notice tone="ochre">
              {worst
                ? t`Nobody has this record: each field shows the longest value that it takes for anyone.`
                : isSurveying
                  ? t`Going through all records …`
                  : t`The longest values could not be found.`}
            </Notice>
          )}
          {template && work && !worst && (
            <WhichCopy
              condition={plan.conditions?.[template.id] ?? null}
              count={plan.counts?.[template.id] ?? null}
              rows={rows}
              part={part}
              onPart={setPart}
            />
          )}
          {template && (
            <FilledPages
              template={template}
              map={shownMap}
              record={shownRecord}
              columns={columns}
              context={context}
              output={plan.output}
              sourceId={plan.sourceId ?? null}
              values={worst?.get(template.id) ?? null}
              changing={changing}
              onNotes={setNotes}
              chosen={chosenBoxes[0] ?? null}
              also={[...chosenBoxes, ...partsOf(pointed)]}
              pointed={pointed}
              onChoose={(field) => choose(template.id, field)}
              onPoint={setPointed}
              marks={marks}
              zoom={zoom}
            />
          )}
        </Pane>
      </Split>
    </DragMapping>
  );
}
