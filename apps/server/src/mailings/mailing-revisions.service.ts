import type { TakeOverAnswer, TakeOverRequest } from '@mailbag/contract';
import type { FieldMap } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, fieldLabel, isFillable, parseRule } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { History } from '../history/history.service.js';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import { mailingChangeStore } from '../stores/mailing-change.store.js';
import { principal } from '../platform/principal.js';
import { mailingStore } from '../stores/mailing.store.js';
import { TemplatesService } from '../templates/templates.service.js';
import { MailingsService, earlierPlan } from './mailings.service.js';

/** How often it is tried again when somebody saves the mailing meanwhile. */
const MOST_TRIES = 5;

/** Mailings go over to another revision of a template, and back. Batches that run keep the one that they were started with. */
@Injectable()
export class MailingRevisions {
  constructor(
    private readonly mailings: MailingsService,
    private readonly templates: TemplatesService,
    private readonly transactions: Transactions,
    private readonly live: LiveService,
    private readonly history: History,
  ) {}

  /** @throws MailbagError not-found, request-wrong, rule-unknown, mailing-changed-elsewhere */
  async takeOver(id: number, { templateId, revisionId, pairs = [], map: given }: TakeOverRequest): Promise<TakeOverAnswer> {
    for (let tries = 1; ; tries++) {
      const mailing = await this.mailings.entity(id);
      const current = mailing.revisions.get(templateId);
      if (current === undefined) throw new MailbagError('request-wrong', { why: t`the mailing does not have that template` });
      const [was, now] = [await this.templates.detail(templateId, current), await this.templates.detail(templateId, revisionId)];
      const before: FieldMap = mailing.plan.maps[templateId] ?? {};
      const known = new Set(now.fieldList.filter(isFillable).map(({ name }) => name));
      const became = new Map(pairs.filter((pair) => known.has(pair.new)).map((pair) => [pair.old, pair.new]));
      const map: FieldMap = {};
      const lost: string[] = [];
      for (const [field, rule] of Object.entries(given ?? before)) {
        const target = given ? field : became.get(field);
        if (target === undefined || !known.has(target)) {
          const old = was.fieldList.find(({ name }) => name === field);
          lost.push(old ? fieldLabel(old) : field);
          continue;
        }
        const { rule: read, fault } = parseRule(rule);
        if (!read) throw new MailbagError('rule-unknown', { field, template: templateId, why: fault });
        map[target] = read;
      }
      const packet = await mailingStore.packet(this.transactions, id);
      const { sourceId, packet: _packet, ...plan } = { ...mailing.plan, maps: { ...mailing.plan.maps, [templateId]: map } };
      const at = new Date().toISOString();
      const isMine = await this.transactions.run(async (sql) => {
        const isSaved = await mailingStore.save(sql, id, mailing.version, {
          name: mailing.name,
          plan,
          sourceId,
          packet: packet.map((item) => (item.templateId === templateId ? { ...item, revisionId } : item)),
          updatedAt: at,
        });
        if (isSaved)
          await mailingChangeStore.add(sql, id, earlierPlan(mailing), [t`revision ${now.revision} of “${now.name}”`], principal(), at);
        return isSaved;
      });
      if (!isMine) {
        if (tries === MOST_TRIES) throw new MailbagError('mailing-changed-elsewhere', { mailing: mailing.name });
        continue;
      }
      await this.history.note(t`changed a mailing`, mailing.name, t`revision ${now.revision} of “${now.name}”`);
      this.live.notify('mailing', id);
      return {
        carried: Object.keys(map).length,
        lost,
        open: [...known].filter((name) => !Object.hasOwn(map, name)).length,
        before: { revisionId: current, map: before },
      };
    }
  }
}
