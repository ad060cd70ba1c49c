import type {
  AnswersRequest,
  EditionsAnswer,
  RevisionSummary,
  RevisionUploadAnswer,
  TemplateDetail,
  TemplateSummary,
  TemplateUploadAnswer,
} from '@mailbag/contract';
import type { Answer, TemplateNote } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, carryAnswers, joinAnswers, takeApart } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { IsNull, Repository } from 'typeorm';
import { Transactions } from '../persistence/transactions.js';
import type { FileKey } from '../files/file-key.js';
import { digestOf, has, remove, rename, stat } from '../files/files.js';
import { templateFile } from '../files/template-file.js';
import { LiveService } from '../live/live.service.js';
import { Pool } from '../work/pool.js';
import { TemplateEntity, TemplateRevisionEntity } from './templates.entity.js';
import { templateStore } from '../stores/template.store.js';
import { wastebasketStore } from '../stores/wastebasket.store.js';
import { layoutStore } from '../stores/layout.store.js';
import { mailingStore } from '../stores/mailing.store.js';

/** A revision with the name of its template, for those who fill it. */
export type FillableTemplate = TemplateDetail & { hash: string };
/** Without what is nobody's business outside. */
export const toldTemplate = ({ hash: _, ...template }: FillableTemplate): TemplateDetail => template;

@Injectable()
export class TemplatesService {
  constructor(
    @InjectRepository(TemplateEntity) private readonly templates: Repository<TemplateEntity>,
    @InjectRepository(TemplateRevisionEntity) private readonly revisions: Repository<TemplateRevisionEntity>,
    private readonly transactions: Transactions,
    private readonly pool: Pool,
    private readonly live: LiveService,
  ) {}

  /**
   * Takes in an uploaded file, which is moved or removed. The same file again gives the template that is there.
   * @param mayBeFlat whether a file without fields is taken, so that some can be drawn on it
   * @throws MailbagError pdf-*
   */
  async take(key: FileKey, fileName: string, mayBeFlat = false): Promise<TemplateUploadAnswer> {
    try {
      const { hash, read } = await this.arrival(key, fileName, mayBeFlat);
      const known = await this.revisions.findOneBy({ hash });
      if (known) {
        await this.transactions.run((sql) => wastebasketStore.putBack(sql, 'template', known.templateId));
        return { template: await this.summary(known.templateId), known: true };
      }
      const content = await read();
      const createdAt = new Date().toISOString();
      const id = await this.transactions.run(async (manager) => {
        const template = await manager.save(TemplateEntity, {
          name:
            fileName
              .replace(/\.pdf$/i, '')
              .replace(/[_]+/g, ' ')
              .trim() || fileName,
          createdAt,
        });
        await manager.insert(TemplateRevisionEntity, { templateId: template.id, number: 1, ...content, createdAt });
        return template.id;
      });
      return { template: await this.summary(id), known: false };
    } finally {
      await remove(key);
    }
  }

  /** The newest revision with the file that came in, whatever it is called; null: there is none. */
  async withFile(key: FileKey): Promise<{ templateId: number; revisionId: number } | null> {
    const known = await this.revisions.findOne({ where: { hash: (await digestOf(key))! }, order: { id: 'DESC' } });
    return known && { templateId: known.templateId, revisionId: known.id };
  }

  /** A file that came in: its digest, and what a revision keeps of it once it is read and lies where templates lie. */
  private async arrival(key: FileKey, fileName: string, mayBeFlat = false) {
    const hash = (await digestOf(key))!;
    const { size } = (await stat(key))!;
    const read = async () => {
      const { pages, fields, notes, answers = [] } = await this.pool.run('inspect', { key, file: fileName, mayBeFlat });
      if (!(await has(templateFile(hash)))) await rename(key, templateFile(hash));
      return { hash, fileName, size, pages, fields, notes, answers };
    };
    return { hash, read };
  }

  /**
   * Takes in a new edition of a form as the next revision of its template; mailings go on with the one that they were mapped for.
   * @throws MailbagError pdf-*, not-found
   */
  async takeEdition(id: number, key: FileKey, fileName: string): Promise<RevisionUploadAnswer> {
    try {
      const hash = (await digestOf(key))!;
      const same = await this.revisions.findOneBy({ templateId: id, hash });
      if (!same) return { revision: await this.addRevision(id, key, { fileName }), known: false };
      return { revision: (await this.revisionsOf(id)).find((one) => one.id === same.id)!, known: true };
    } finally {
      await remove(key);
    }
  }

  /**
   * The next revision of a template. Its file is moved.
   * @param from `drawn`: the layout that was written into it, and the revision beneath
   * @throws MailbagError pdf-*, not-found
   */
  async addRevision(
    id: number,
    key: FileKey,
    { fileName, drawn }: { fileName: string; drawn?: Pick<TemplateRevisionEntity, 'baseId' | 'layout'> },
  ): Promise<RevisionSummary> {
    try {
      const latest = await this.revision(id);
      const number = latest.number + 1;
      const { read } = await this.arrival(key, fileName, drawn !== undefined);
      const content = await read();
      // What is drawn further is the same form: what people joined on it stays joined.
      const answers = drawn ? carryAnswers(latest.answers ?? [], content.answers, content.fields) : content.answers;
      const revision = { templateId: id, number, ...content, answers, ...drawn, createdAt: new Date().toISOString() };
      await this.transactions.run((manager) => manager.insert(TemplateRevisionEntity, revision));
      return (await this.revisionsOf(id)).find((one) => one.number === number)!;
    } finally {
      await remove(key);
    }
  }

  /** @throws MailbagError not-found, in-wastebasket */
  private async template(id: number): Promise<TemplateEntity> {
    const template = await this.templates.findOneBy({ id });
    if (!template) throw new MailbagError('not-found', { what: t`template` });
    if (template.deletedAt !== null) throw new MailbagError('in-wastebasket', { name: template.name });
    return template;
  }

  /** @param revisionId the revision that is meant; left out: the latest @throws MailbagError not-found, in-wastebasket */
  async revision(id: number, revisionId?: number): Promise<TemplateRevisionEntity> {
    await this.template(id);
    const revision = await this.revisions.findOne({
      where: { templateId: id, ...(revisionId === undefined ? {} : { id: revisionId }) },
      order: { number: 'DESC' },
    });
    if (!revision) throw new MailbagError('not-found', { what: t`template` });
    return revision;
  }

  /** Revisions of a template, the latest first. @throws MailbagError not-found */
  async revisionsOf(id: number): Promise<RevisionSummary[]> {
    await this.detail(id);
    const [revisions, uses] = await Promise.all([
      this.revisions.find({ where: { templateId: id }, order: { number: 'DESC' } }),
      mailingStore.ofTemplate(this.transactions, id),
    ]);
    return revisions.map((revision) => ({
      id: revision.id,
      number: revision.number,
      fileName: revision.fileName,
      pages: revision.pages.length,
      fields: revision.fields.length,
      createdAt: revision.createdAt,
      usedBy: uses.filter(({ revisionId }) => revisionId === revision.id).map(({ id: mailing, name }) => ({ id: mailing, name })),
    }));
  }

  /** Two revisions of a template, field by field. @throws MailbagError not-found */
  async compare(id: number, before: number, after: number): Promise<EditionsAnswer> {
    const [was, now] = [await this.detail(id, before), await this.detail(id, after)];
    return this.pool.run('compareEditions', { before: templateFile(was.hash), after: templateFile(now.hash), file: now.fileName });
  }

  async list(): Promise<TemplateSummary[]> {
    return this.summaries(null);
  }

  /** @param revisionId the revision that is meant; left out: the latest @throws MailbagError not-found */
  async detail(id: number, revisionId?: number): Promise<FillableTemplate> {
    const template = await this.template(id);
    const revision = await this.revision(id, revisionId);
    return {
      id,
      name: template.name,
      fileName: revision.fileName,
      revision: revision.number,
      revisionId: revision.id,
      hash: revision.hash,
      pages: revision.pages.length,
      pageSizes: revision.pages,
      fields: revision.fields.length,
      fieldList: revision.fields,
      stamps: Object.values(revision.layout?.stamps ?? {}),
      answers: revision.answers ?? (await this.readAnswers(revision)),
      size: revision.size,
      notes: revision.notes,
      createdAt: revision.createdAt,
      isArchived: template.archivedAt !== null,
      usedBy: await this.usedBy(id),
    };
  }

  /** @throws MailbagError not-found */
  async summary(id: number): Promise<TemplateSummary> {
    const [summary] = await this.summaries(id);
    if (!summary) throw new MailbagError('not-found', { what: t`template` });
    return summary;
  }

  private async summaries(id: number | null): Promise<TemplateSummary[]> {
    const [templates, uses] = await Promise.all([templateStore.summaries(this.transactions, id), templateStore.uses(this.transactions)]);
    const usedBy = new Map<number, string[]>();
    for (const { templateId, name } of uses) usedBy.set(templateId, [...(usedBy.get(templateId) ?? []), name]);
    return templates.map(({ notes, archivedAt, ...template }) => ({
      ...template,
      notes: JSON.parse(notes) as TemplateNote[],
      isArchived: archivedAt !== null,
      usedBy: usedBy.get(template.id) ?? [],
    }));
  }

  /** Puts a template away, or takes it back: it is not offered any more, and goes on where it is used. @throws MailbagError not-found */
  async archive(id: number, isArchived: boolean): Promise<TemplateSummary> {
    await this.transactions.run((sql) => templateStore.archive(sql, id, isArchived ? new Date().toISOString() : null));
    this.live.notify('template', id);
    return this.summary(id);
  }

  /** Makes an earlier revision the latest again, as a revision of its own: what came between stays. @throws MailbagError not-found */
  async goBack(id: number, revisionId: number): Promise<RevisionSummary> {
    const { id: _id, number: _number, createdAt: _createdAt, ...content } = await this.revision(id, revisionId);
    const number = (await this.revision(id)).number + 1;
    await this.transactions.run((manager) =>
      manager.insert(TemplateRevisionEntity, { ...content, number, createdAt: new Date().toISOString() }),
    );
    this.live.notify('template', id);
    return (await this.revisionsOf(id)).find((one) => one.number === number)!;
  }

  /** Of a revision that was read before answers were told: they are read once and kept. */
  private async readAnswers({ id, hash, fileName }: TemplateRevisionEntity): Promise<Answer[]> {
    const { answers = [] } = await this.pool.run('inspect', { key: templateFile(hash), file: fileName, mayBeFlat: true });
    await this.transactions.run((manager) => manager.update(TemplateRevisionEntity, { id, answers: IsNull() }, { answers }));
    return answers;
  }

  /** Joins fields of a revision to one answer, or takes one apart. @throws MailbagError not-found, answers-join */
  async changeAnswers(id: number, { revisionId, fields, as }: AnswersRequest): Promise<FillableTemplate> {
    const { fieldList, answers } = await this.detail(id, revisionId);
    const next = as ? joinAnswers(answers, fields, as, fieldList) : takeApart(answers, fields[0]!, fieldList);
    await this.transactions.run((manager) => manager.update(TemplateRevisionEntity, { id: revisionId }, { answers: next }));
    this.live.notify('template', id);
    return this.detail(id, revisionId);
  }

  private async usedBy(id: number): Promise<string[]> {
    const rows = await mailingStore.namesByTemplate(this.transactions, id);
    return rows.map(({ name }) => name);
  }

  /** @param revisionId the revision that is meant; left out: the latest */
  async file(id: number, revisionId?: number): Promise<FileKey> {
    return templateFile((await this.detail(id, revisionId)).hash);
  }

  async rename(id: number, name: string): Promise<TemplateSummary> {
    await this.template(id);
    await this.transactions.run((manager) => manager.update(TemplateEntity, { id }, { name: name.trim() }));
    return this.summary(id);
  }

  /** @throws MailbagError template-in-use, not-found, in-wastebasket */
  async assertMayGo(id: number): Promise<void> {
    const { name: template, usedBy: mailings } = await this.detail(id);
    if (mailings.length > 0) throw new MailbagError('template-in-use', { template, mailings });
  }

  /** Deletes it for good. Its file stays: batches that ran with it can be explained. @throws MailbagError template-in-use */
  async erase(id: number): Promise<void> {
    const mailings = await mailingStore.namesByTemplate(this.transactions, id, true);
    if (mailings.length > 0) {
      const { name: template } = await this.templates.findOneByOrFail({ id });
      throw new MailbagError('template-in-use', { template, mailings: mailings.map(({ name }) => name) });
    }
    await this.transactions.run(async (manager) => {
      await layoutStore.remove(manager, id);
      await manager.delete(TemplateRevisionEntity, { templateId: id });
      await manager.delete(TemplateEntity, { id });
    });
  }
}
