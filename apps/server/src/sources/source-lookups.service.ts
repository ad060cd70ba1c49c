import type { LookupAnswer, LookupRequest } from '@mailbag/contract';
import { LOOKUP_LIMIT, MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { SourcesService } from './sources.service.js';

/** Two columns of a source as a table of a rule, such as the rate of each site. */
@Injectable()
export class SourceLookups {
  constructor(private readonly sources: SourcesService) {}

  /** Each key once, with the value of its first row. Rows without a key are passed over. @throws MailbagError not-found, lookup-* */
  async table(id: number, { key, value }: LookupRequest): Promise<LookupAnswer> {
    const { name: source, columns } = await this.sources.detail(id);
    const [keyAt, valueAt] = [key, value].map((wanted) => {
      const at = columns.findIndex(({ name }) => name === wanted);
      if (at < 0) throw new MailbagError('lookup-no-column', { source, column: wanted });
      return at;
    });
    const found = new Map<string, { key: string; value: string }>();
    const unclear = new Set<string>();
    for await (const records of this.sources.all(id))
      for (const { cells } of records) {
        const line = { key: cells[keyAt!]?.text.trim() ?? '', value: cells[valueAt!]?.text.trim() ?? '' };
        // As the rule compares them.
        const compared = line.key.replace(/\s+/g, ' ').toLowerCase();
        const known = found.get(compared);
        if (line.key === '') continue;
        if (known && known.value !== line.value) unclear.add(known.key);
        if (!known) found.set(compared, line);
        if (found.size > LOOKUP_LIMIT) throw new MailbagError('lookup-too-long', { source, column: key, limit: LOOKUP_LIMIT });
      }
    return { table: [...found.values()], unclear: [...unclear].slice(0, 20) };
  }
}
