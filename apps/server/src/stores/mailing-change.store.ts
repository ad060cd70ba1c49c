import type { MailingChangeLine } from '@mailbag/contract';
import type { Sql } from '../persistence/sql.js';
import { one, rows, run } from '../persistence/sql.js';
import type { Principal } from '../platform/principal.js';
import { principalKey } from '../platform/principal.js';
import type { PacketItem } from './mailing.store.js';

/** What a mailing was before a change. Passwords are encrypted in it as they are in the mailing. */
export interface EarlierPlan {
  plan: unknown;
  sourceId: number | null;
  packet: readonly PacketItem[];
}

/** Changes that are kept of a mailing. */
const KEPT = 100;
/** Milliseconds after which what somebody changes is a change of its own, counted from the last one, and from the first. */
const [PAUSE, LONGEST] = [5 * 60_000, 20 * 60_000];

export const mailingChangeStore = {
  /** Notes a change: what one person changes in one go is one, with the mailing as it was before all of it. */
  async note(sql: Sql, mailingId: number, before: EarlierPlan, parts: readonly string[], who: Principal, now: Date): Promise<void> {
    const at = now.toISOString();
    const last = await one<{ id: number; principal: string; who: string; at: string; until: string; parts: string }>(
      sql,
      'SELECT id, principal, who, at, until, parts FROM mailing_change WHERE mailingId = ? ORDER BY id DESC LIMIT 1',
      [mailingId],
    );
    const isGoingOn =
      last?.principal === principalKey(who) &&
      last.who === who.name &&
      now.getTime() - Date.parse(last.until) < PAUSE &&
      now.getTime() - Date.parse(last.at) < LONGEST;
    if (last && isGoingOn) {
      const all = [...new Set([...(JSON.parse(last.parts) as string[]), ...parts])];
      await run(sql, 'UPDATE mailing_change SET until = ?, parts = ? WHERE id = ?', [at, JSON.stringify(all), last.id]);
      return;
    }
    await mailingChangeStore.add(sql, mailingId, before, parts, who, at);
    await run(
      sql,
      'DELETE FROM mailing_change WHERE mailingId = ? AND id NOT IN (SELECT id FROM mailing_change WHERE mailingId = ? ORDER BY id DESC LIMIT ?)',
      [mailingId, mailingId, KEPT],
    );
  },

  /** Notes a change of its own. */
  add: (sql: Sql, mailingId: number, { plan, sourceId, packet }: EarlierPlan, parts: readonly string[], who: Principal, at: string) =>
    run(
      sql,
      'INSERT INTO mailing_change (mailingId, at, until, principal, who, parts, plan, sourceId, packet) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
      [mailingId, at, at, principalKey(who), who.name, JSON.stringify(parts), JSON.stringify(plan), sourceId, JSON.stringify(packet)],
    ),

  /** The newest first. */
  list: async (sql: Sql, mailingId: number): Promise<MailingChangeLine[]> =>
    (
      await rows<Omit<MailingChangeLine, 'parts'> & { parts: string }>(
        sql,
        'SELECT id, at, until, who, parts FROM mailing_change WHERE mailingId = ? ORDER BY id DESC',
        [mailingId],
      )
    ).map((line) => ({ ...line, parts: JSON.parse(line.parts) as string[] })),

  /** What a mailing was before a change; undefined: that is not known any more. */
  async before(sql: Sql, mailingId: number, id: number): Promise<EarlierPlan | undefined> {
    const found = await one<{ plan: string; sourceId: number | null; packet: string }>(
      sql,
      'SELECT plan, sourceId, packet FROM mailing_change WHERE mailingId = ? AND id = ?',
      [mailingId, id],
    );
    return found && { plan: JSON.parse(found.plan), sourceId: found.sourceId, packet: JSON.parse(found.packet) as PacketItem[] };
  },
};
