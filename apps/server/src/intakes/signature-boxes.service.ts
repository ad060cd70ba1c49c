import { randomUUID } from 'node:crypto';
import type { IntakeBoxRequest, IntakeDetail, MailingPlan } from '@mailbag/contract';
import type { Drawn, FillRule, IntakePlan, Json, Layout, SeenBox } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import {
  MOST_PICTURES,
  MailbagError,
  RECEIVED_COLUMN,
  addQuestion,
  changesBetween,
  drawnField,
  isPictureKind,
  isWholeInIntake,
  isWholeInLayout,
  ownBox,
  withDrawn,
  withQuestion,
} from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { MailingsService } from '../mailings/mailings.service.js';
import { LayoutsService } from '../templates/layouts.service.js';
import { dateBeside, withinPage } from './box-places.js';
import { IntakesService } from './intakes.service.js';

/** The rule for a date beside a signature: the day on which the copy is made, or the answer came in where copies are made later. */
const dateRule = ({ after }: IntakePlan): FillRule =>
  after.atOnce
    ? { kind: 'copy-fact', fact: 'today' }
    : {
        kind: 'date',
        of: {
          kind: 'portion',
          of: { kind: 'column', column: RECEIVED_COLUMN },
          take: { what: 'characters', from: 1, to: 10 },
          missing: 'stop',
        },
        read: [],
        add: { years: 0, months: 0, days: 0 },
        show: { pattern: 'dd.MM.yyyy' },
        language: null,
      };

/** Boxes for signatures, initials and pictures that are drawn on the forms of an intake, from the intake. */
@Injectable()
export class SignatureBoxes {
  constructor(
    private readonly intakes: IntakesService,
    private readonly mailings: MailingsService,
    private readonly layouts: LayoutsService,
  ) {}

  /**
   * Draws a box on a form, writes it into another revision of the form, and has the answer of a question stand in it. Without a question, one is asked for it.
   * @throws MailbagError not-found, intake-form-drawn-on, layout-*, intake-changed-elsewhere, mailing-changed-elsewhere
   */
  async draw(id: number, { question, template, page, box, everyPage, dated }: IntakeBoxRequest): Promise<IntakeDetail> {
    const { plan, mailingId } = await this.intakes.entity(id);
    const mailing = await this.mailings.entity(mailingId);
    if (!mailing.plan.packet.includes(template)) throw new MailbagError('not-found', { what: t`form` });
    const asked = question === null ? null : plan.questions[question];
    if (asked === undefined || (asked && !isPictureKind(asked.kind))) throw new MailbagError('not-found', { what: t`question` });
    const { isDraft, layout, pages, fields, isOvertaken } = await this.layouts.layout(template);
    const { name } = (await this.mailings.detail(mailingId)).templates.find((one) => one.id === template)!;
    if (isDraft || isOvertaken) throw new MailbagError('intake-form-drawn-on', { template: name });
    const there = mailing.plan.output.pictures?.length ?? 0;
    if (there + (everyPage ? pages.length : 1) > MOST_PICTURES) throw new MailbagError('intake-boxes-many', { limit: MOST_PICTURES });
    if (!pages[page - 1]) throw new MailbagError('not-found', { what: t`page` });
    const kind = asked?.kind === 'image' ? 'image' : 'signature';
    const drawn = pages.flatMap((size, index): Drawn[] => {
      if (!everyPage && index !== page - 1) return [];
      const own = withinPage(box, size);
      const field = (seen: SeenBox, wish: string, of: 'signature' | 'image' | 'text', label: string): Drawn => ({
        key: randomUUID(),
        what: 'field',
        field: drawnField({ name: wish, kind: of, page: index + 1, rect: ownBox(seen, size), label, ...(of === 'text' && { size: 10 }) }),
      });
      const words = asked?.words ?? 'Signature';
      return [
        field(own, kind, kind, words),
        ...(dated ? [field(withinPage(dateBeside(own, size), size), `${kind}_date`, 'text', `Date beside “${words}”`)] : []),
      ];
    });
    const before = new Set(Object.keys(layout.fields));
    const next = withDrawn(layout, drawn, fields.map((one) => one.name)); // prettier-ignore
    const changed = await this.layouts.change(
      template,
      changesBetween(layout as unknown as Json, next as unknown as Json, isWholeInLayout),
    );
    const { id: revisionId } = await this.layouts.use(template, changed.version);
    const column = await this.askFor(id, question);
    const added = addedFields(next, before);
    const { maps, output } = mailing.plan;
    const pictures = added.flatMap((field) => (field.kind === 'text' ? [] : [{ template, field: field.name, column }]));
    const dates = Object.fromEntries(added.flatMap((field) => (field.kind === 'text' ? [[field.name, dateRule(plan)] as const] : [])));
    const mapped: MailingPlan = {
      ...mailing.plan,
      maps: { ...maps, [template]: { ...maps[template], ...dates } },
      output: { ...output, pictures: [...(output.pictures ?? []), ...pictures] },
    };
    await this.mailings.save(
      mailingId,
      { version: mailing.version, plan: mapped },
      new Map([...mailing.revisions, [template, revisionId]]),
    );
    return this.intakes.detail(id);
  }

  /** The column of a question; where there is none yet, it is asked at the end. */
  private async askFor(id: number, question: string | null): Promise<string> {
    const { plan } = await this.intakes.entity(id);
    if (question !== null) return plan.questions[question]!.column;
    const added = addQuestion(plan, plan.sections.at(-1)!.id, null, 'Signature', 'signature');
    const asked = withQuestion(added.plan, added.id, { required: true });
    await this.intakes.change(id, changesBetween(plan as unknown as Json, asked as unknown as Json, isWholeInIntake));
    return asked.questions[added.id]!.column;
  }
}

const addedFields = ({ fields }: Layout, before: ReadonlySet<string>) =>
  Object.entries(fields).flatMap(([key, field]) => (before.has(key) ? [] : [field]));
