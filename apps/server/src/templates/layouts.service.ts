import { randomUUID } from 'node:crypto';
import type { LayoutAidsAnswer, LayoutAnswer, LayoutChangesAnswer, RevisionSummary } from '@mailbag/contract';
import type { Change, Json, Layout } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, drawnIn, emptyLayout, isChange, layoutOf, readWholeLayout, same, withChanges } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { fileKey } from '../files/file-key.js';
import { put } from '../files/files.js';
import { templateFile } from '../files/template-file.js';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import { layoutStore } from '../stores/layout.store.js';
import { Pool } from '../work/pool.js';
import type { TemplateRevisionEntity } from './templates.entity.js';
import { TemplatesService } from './templates.service.js';

/** How often it is tried again when somebody else saves meanwhile. */
const MOST_TRIES = 5;

/** A layout as it is being drawn, and what it is drawn on. */
interface Drawn {
  version: number;
  /** Whether something is drawn that is not in use. */
  isDraft: boolean;
  layout: Layout;
  base: TemplateRevisionEntity;
  latest: TemplateRevisionEntity;
}

/** Fields and stamps that people draw on templates. A draft is kept beside the revisions until it is taken into use, which writes another revision. */
@Injectable()
export class LayoutsService {
  constructor(
    private readonly templates: TemplatesService,
    private readonly transactions: Transactions,
    private readonly pool: Pool,
    private readonly live: LiveService,
  ) {}

  private async drawn(id: number): Promise<Drawn> {
    const latest = await this.templates.revision(id);
    const stored = await layoutStore.ofTemplate(this.transactions, id);
    const draft = stored?.isInUse ? undefined : stored;
    const baseId = draft?.baseId ?? latest.baseId ?? latest.id;
    return {
      version: stored?.version ?? 0,
      isDraft: draft !== undefined,
      layout: draft ? (JSON.parse(draft.content) as Layout) : (latest.layout ?? emptyLayout),
      base: baseId === latest.id ? latest : await this.templates.revision(id, baseId),
      latest,
    };
  }

  /** @throws MailbagError not-found */
  async layout(id: number): Promise<LayoutAnswer> {
    const { version, isDraft, layout, base, latest } = await this.drawn(id);
    return {
      version,
      isDraft,
      layout,
      inUse: latest.layout ?? emptyLayout,
      baseId: base.id,
      baseNumber: base.number,
      latest: latest.number,
      isOvertaken: base.id !== latest.id && base.id !== latest.baseId,
      pages: base.pages,
      fields: base.fields,
    };
  }

  /** Lines to snap to and blanks of a revision's file. @throws MailbagError not-found, pdf-holds-too-much */
  async aids(id: number, revisionId: number): Promise<LayoutAidsAnswer> {
    const { hash, fileName } = await this.templates.revision(id, revisionId);
    return this.pool.run('layoutAids', { key: templateFile(hash), file: fileName });
  }

  /**
   * Makes changes in whatever version is there: what others drew meanwhile stays, and what both changed is told with both values.
   * @throws MailbagError not-found, request-wrong, layout-*
   */
  async change(id: number, changes: readonly Change[]): Promise<LayoutChangesAnswer> {
    if (!changes.every(isChange)) throw new MailbagError('request-wrong', { why: t`it holds something that is not a change` });
    for (let tries = 1; ; tries++) {
      const { version, layout, base } = await this.drawn(id);
      const { document, clashes } = withChanges(layout as unknown as Json, changes);
      if (same(document, layout as unknown as Json)) return { version, layout, clashes };
      const next = readWholeLayout(document);
      const content = JSON.stringify(next);
      const isMine = await this.transactions.run((sql) =>
        layoutStore.save(sql, id, version, { baseId: base.id, content }, new Date().toISOString()),
      );
      if (isMine) {
        this.live.notify('template', id);
        return { version: version + 1, layout: next, clashes };
      }
      if (tries === MOST_TRIES) throw new MailbagError('layout-changed-elsewhere', { template: (await this.templates.detail(id)).name });
    }
  }

  /** What is drawn and not in use is forgotten. */
  async discard(id: number): Promise<LayoutAnswer> {
    const { version } = await this.drawn(id);
    await this.transactions.run((sql) => layoutStore.settle(sql, id, version));
    this.live.notify('template', id);
    return this.layout(id);
  }

  /**
   * Writes what is drawn into the file beneath as another revision of the template.
   * @param version of the draft as it was seen
   * @throws MailbagError layout-empty, layout-changed-elsewhere, layout-*
   */
  async use(id: number, version: number): Promise<RevisionSummary> {
    const { layout, base, version: now } = await this.drawn(id);
    if (now !== version) throw new MailbagError('layout-changed-elsewhere', { template: (await this.templates.detail(id)).name });
    const fields = drawnIn(layout).flatMap((one) => (one.what === 'field' ? [one.field] : []));
    if (fields.length === 0 && Object.keys(layout.stamps).length === 0) throw new MailbagError('layout-empty', {});
    const key = fileKey('spool', `layout-${randomUUID()}`);
    await put(key, await this.pool.run('writeFields', { key: templateFile(base.hash), file: base.fileName, fields }));
    const made = await this.templates.addRevision(id, key, { fileName: base.fileName, drawn: { baseId: base.id, layout } });
    // What somebody drew since then is not lost: it goes on as a draft.
    await this.transactions.run((sql) => layoutStore.settle(sql, id, version));
    this.live.notify('template', id);
    return made;
  }

  /** A template of a file without fields gets one for each of its blanks. @throws MailbagError pdf-no-blanks */
  async takeBlanks(id: number): Promise<void> {
    const { base } = await this.drawn(id);
    const { blanks, pages } = await this.aids(id, base.id);
    if (blanks.length === 0) {
      await this.templates.erase(id);
      throw new MailbagError('pdf-no-blanks', { file: base.fileName, isScan: pages.some(({ isScan }) => isScan) });
    }
    const layout = layoutOf(blanks, () => randomUUID());
    const content = JSON.stringify(layout);
    await this.transactions.run((sql) => layoutStore.save(sql, id, 0, { baseId: base.id, content }, new Date().toISOString()));
    await this.use(id, 1);
  }
}
