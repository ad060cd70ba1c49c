import type { PersonalPlan } from '@mailbag/core';
import { SAMPLE_CODE } from '@mailbag/core';
import type { Sql } from '../persistence/sql.js';
import { intakeStore } from '../stores/intake.store.js';
import type { LinkPlace } from './personal-link.js';
import { personalLink } from './personal-link.js';

/** Where the personal links of a mailing lead, to stand in what is frozen of it; nothing: it has none. */
export async function linksOf(sql: Sql, mailingId: number): Promise<{ links?: LinkPlace }> {
  const intake = await intakeStore.answering(sql, mailingId);
  if (!intake) return {};
  const { site, round } = (JSON.parse(intake.plan) as { personal: PersonalPlan }).personal;
  return { links: { at: `${site}/in/${intake.word}`, intakeId: intake.id, round } };
}

/** A link as an example, where no copy exists yet; nothing: the mailing has none. */
export const exampleLink = ({ links }: { links?: LinkPlace }): { link?: string } =>
  links ? { link: personalLink(links, SAMPLE_CODE) } : {};
