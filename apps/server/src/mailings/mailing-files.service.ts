import { randomUUID } from 'node:crypto';
import type { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import type { MailingDetail } from '@mailbag/contract';
import { MailingPlan } from '@mailbag/contract';
import { MailbagError, isMailbagError, readWholeLayout } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { BadRequestException, Injectable } from '@nestjs/common';
import type { Entry, ZipFile } from 'yauzl';
import { openPromise } from 'yauzl';
import type { FileKey } from '../files/file-key.js';
import { fileKey, pathOf } from '../files/file-key.js';
import { put, remove } from '../files/files.js';
import { templateFile } from '../files/template-file.js';
import type { ZipPart } from '../files/zip-of-files.js';
import { zipOfFiles } from '../files/zip-of-files.js';
import { renamePlan } from '../frozen/present-names.js';
import { config } from '../platform/config.js';
import { validated } from '../platform/validation.js';
import { SourcesService } from '../sources/sources.service.js';
import type { PacketItem } from '../stores/mailing.store.js';
import { TemplatesService } from '../templates/templates.service.js';
import { AttachedFiles } from './attached-files.service.js';
import type { FiledMailing, FiledTemplate } from './mailing-file.js';
import { FORMAT, MAILING_JSON, renamed, renamedPictures } from './mailing-file.js';
import { MailingsService } from './mailings.service.js';

/** Bytes of a description, and files of a zip, at most. */
const [LARGEST_JSON, MOST_FILES] = [20 * 1024 * 1024, 200];
const fault = (why: string): MailbagError => new MailbagError('mailing-file-unreadable', { why });

/** Mailings as zips of JSON and PDFs: written, and brought in here or elsewhere. Records, people and passwords do not go along. */
@Injectable()
export class MailingFiles {
  constructor(
    private readonly mailings: MailingsService,
    private readonly templates: TemplatesService,
    private readonly sources: SourcesService,
    private readonly attached: AttachedFiles,
  ) {}

  /** @throws MailbagError not-found */
  async write(id: number): Promise<{ name: string; zip: Readable }> {
    const { plan, revisions } = await this.mailings.entity(id);
    const { packet, sourceId, maps, conditions = {}, counts = {}, leftOut: _leftOut, ...rest } = plan;
    const { openPassword: _open, permissionsPassword: _permissions, ...output } = rest.output;
    const { startAt: _startAt, senderId: _sender, ...message } = rest.message;
    const names = new Map(packet.map((template, at) => [String(template), String(at)]));
    const parts: ZipPart[] = [];
    const templates: FiledTemplate[] = [];
    for (const [at, template] of packet.entries()) {
      const revision = await this.templates.revision(template, revisions.get(template));
      const { name } = await this.templates.summary(template);
      const file = `templates/${at + 1}.pdf`;
      parts.push({ name: file, key: templateFile(revision.hash) });
      let drawn: FiledTemplate['drawn'] = null;
      if (revision.layout && revision.baseId !== null) {
        const beneath = `templates/${at + 1} beneath.pdf`;
        parts.push({ name: beneath, key: templateFile((await this.templates.revision(template, revision.baseId)).hash) });
        drawn = { beneath, layout: revision.layout };
      }
      templates.push({ name, fileName: revision.fileName, file, drawn });
    }
    const files = new Map<string, string>();
    for (const { fileId } of [...(message.extraFiles ?? []), ...(output.pictures ?? []).flatMap(({ file }) => file ?? [])]) {
      if (files.has(fileId)) continue;
      files.set(fileId, `files/${files.size + 1}`);
      parts.push({ name: files.get(fileId)!, key: this.attached.placeOf(fileId) });
    }
    const columns =
      sourceId === null
        ? []
        : await this.sources.detail(sourceId).then(
            (one) => one.columns,
            () => [],
          );
    const filed: FiledMailing = {
      format: FORMAT,
      version: 1,
      plan: { ...rest, output: { ...output, pictures: renamedPictures(output.pictures, names) }, message },
      columns: columns.map(({ name }) => name),
      templates,
      maps: renamed(maps, names),
      conditions: renamed(conditions, names),
      counts: renamed(counts, names),
      files: Object.fromEntries(files),
    };
    const text = JSON.stringify(filed, null, 2);
    const all = async function* (): AsyncGenerator<ZipPart> {
      yield {
        name: MAILING_JSON,
        text: (async function* () {
          yield text;
        })(),
      };
      yield* parts;
    };
    return { name: `${plan.name}.zip`, zip: zipOfFiles(all()) };
  }

  /**
   * Brings a mailing in from a zip, with the templates and files that are not here yet. The zip is removed.
   * @throws MailbagError mailing-file-unreadable, pdf-*
   */
  async take(key: FileKey, name: string): Promise<MailingDetail> {
    let zip: ZipFile | null = null;
    try {
      zip = await openPromise(pathOf(key), { autoClose: false }).catch(() => {
        throw fault(t`it is not a zip`);
      });
      return await new Arrival(zip!, this.mailings, this.templates, this.attached).take();
    } catch (error) {
      if (isMailbagError(error)) throw error;
      // What the description holds is held against the contract, and rules against their kinds.
      if (error instanceof BadRequestException) throw fault(t`its description does not tell a whole mailing`);
      if (error instanceof SyntaxError) throw fault(t`its description is not JSON`);
      throw new MailbagError('mailing-file-unreadable', { why: t`“${name}” is damaged` }, { cause: error });
    } finally {
      zip?.close();
      await remove(key);
    }
  }
}

/** One zip that is brought in. */
class Arrival {
  private readonly entries = new Map<string, Entry>();

  constructor(
    private readonly zip: ZipFile,
    private readonly mailings: MailingsService,
    private readonly templates: TemplatesService,
    private readonly attached: AttachedFiles,
  ) {}

  async take(): Promise<MailingDetail> {
    for await (const entry of this.zip.eachEntry()) {
      if (this.entries.size >= MOST_FILES) throw fault(t`it holds more than ${MOST_FILES} files`);
      this.entries.set(entry.fileName, entry);
    }
    const filed = await this.description();
    const packet: PacketItem[] = [];
    for (const template of filed.templates) packet.push(await this.template(template));
    const names = new Map(packet.map(({ templateId }, at) => [String(at), String(templateId)]));
    const files = new Map<string, string>();
    for (const [fileId, path] of Object.entries(filed.files ?? {}))
      files.set(fileId, (await this.attached.keep(await this.spooled(path), path)).fileId);
    const known = <File extends { fileId: string }>(file: File): File => ({ ...file, fileId: files.get(file.fileId) ?? '' });
    const { plan } = filed;
    const whole = await validated(
      {
        ...plan,
        packet: packet.map(({ templateId }) => templateId),
        sourceId: null,
        leftOut: [],
        maps: renamed(filed.maps ?? {}, names),
        conditions: renamed(filed.conditions ?? {}, names),
        counts: renamed(filed.counts ?? {}, names),
        output: {
          ...plan.output,
          pictures: renamedPictures(plan.output?.pictures, names).map((picture) => ({
            ...picture,
            ...(picture.file && { file: known(picture.file) }),
          })),
        },
        message: { ...plan.message, extraFiles: (plan.message?.extraFiles ?? []).map(known) },
      },
      MailingPlan,
    );
    const { id, version } = await this.mailings.create(whole.name);
    await this.mailings.save(id, { version, plan: whole }, new Map(packet.map(({ templateId, revisionId }) => [templateId, revisionId])));
    return this.mailings.detail(id);
  }

  private async description(): Promise<FiledMailing> {
    const entry = this.entries.get(MAILING_JSON);
    if (!entry) throw fault(t`it holds no mailing.json`);
    if (entry.uncompressedSize > LARGEST_JSON) throw fault(t`its mailing.json is too large`);
    const filed = JSON.parse((await buffer(await this.zip.openReadStreamPromise(entry))).toString('utf8')) as FiledMailing | null;
    if (filed?.format !== FORMAT) throw fault(t`its mailing.json is not that of a mailing`);
    if (filed.version !== 1) throw fault(t`it was written by a later version of Mailbag`);
    if (!Array.isArray(filed.templates)) throw fault(t`its mailing.json names no templates`);
    renamePlan(filed.plan);
    return filed;
  }

  /** The revision that a template has here: one with the same file, or a new one. */
  private async template({ fileName, file, drawn }: FiledTemplate): Promise<PacketItem> {
    const key = await this.spooled(file);
    const name = String(fileName).slice(0, 200);
    const known = await this.templates.withFile(key);
    if (known) {
      await remove(key);
      return known;
    }
    if (!drawn) {
      const { template } = await this.templates.take(key, name, true);
      return { templateId: template.id, revisionId: template.revisionId };
    }
    const layout = readWholeLayout(drawn.layout);
    const { template } = await this.templates.take(await this.spooled(drawn.beneath), name, true);
    const { id } = await this.templates.addRevision(template.id, key, { fileName: name, drawn: { baseId: template.revisionId, layout } });
    return { templateId: template.id, revisionId: id };
  }

  /** A file of the zip in the spool. */
  private async spooled(path: string): Promise<FileKey> {
    const entry = this.entries.get(path);
    if (!entry) throw fault(t`it does not hold “${String(path).slice(0, 80)}”`);
    if (entry.uncompressedSize > config.templateLimit) throw fault(t`“${path}” in it is too large`);
    const key = fileKey('spool', `arrival-${randomUUID()}`);
    await put(key, await this.zip.openReadStreamPromise(entry));
    return key;
  }
}
