import { join } from 'node:path';
import { ServerClient } from '@mailbag/demo/dist/server-client.js';
import { tenancies } from '@mailbag/demo/dist/tenancies.js';
import Database from 'libsql';
import { option } from './option.js';
import { startMailbag } from './server-process.js';

/** Fills the ledger with copies as batches leave them: states, recipients of the demo over and over, words of whole records. */
export function fillLedger(path: string, count: number): void {
  const database = new Database(path);
  database.pragma('busy_timeout = 60000');
  database.pragma('synchronous = OFF');
  const people = tenancies();
  const states = ['sent', 'sent', 'sent', 'sent', 'sent', 'sent', 'bounced', 'printed', 'made', 'unconfirmed'];
  const insert = database.prepare(
    `INSERT INTO copy (code, batchId, batchNumber, mailingId, mailingName, recordOrdinal, row, position, templateId, templateName, pages, recipient, address, path, pathKey, state, since, size, sha256, trouble, troubleCode)
     VALUES (?, ?, ?, ?, ?, ?, ?, 0, 1, 'Tenancy agreement', 2, ?, ?, ?, ?, ?, ?, 40000, 'x', ?, ?)`,
  );
  const words = database.prepare('INSERT INTO copy_words (rowid, text) VALUES (?, ?)');
  const start = Date.parse('2024-01-01T00:00:00Z');
  const BLOCK = 5_000;
  for (let from = 0; from < count; from += BLOCK) {
    // The lock is taken at once: the server writes now and then, too.
    database.exec('BEGIN IMMEDIATE');
    {
      for (let index = from; index < Math.min(count, from + BLOCK); index++) {
        const one = people[index % people.length]!;
        const batch = Math.floor(index / 10_000) + 1;
        const name = `${one.firstName} ${one.surname} ${index.toString(36)}`;
        const state = index % 997 === 0 ? 'retrying' : states[(index * 7) % states.length]!;
        const path = `2027/${one.site.trim()}/${index} ${one.surname}.pdf`;
        const code = `T${index.toString(36).padStart(7, '0')}`;
        const { lastInsertRowid } = insert.run([
          code,
          batch,
          batch,
          (batch % 20) + 1,
          `Mailing ${(batch % 20) + 1}`,
          index % 10_000,
          index % 10_000,
          name,
          one.email,
          path,
          path.toLowerCase(),
          state,
          new Date(start + index * 60_000).toISOString(),
          state === 'bounced' ? 'address' : null,
          state === 'bounced' ? '5.1.1' : null,
        ]);
        words.run([
          Number(lastInsertRowid),
          [
            code,
            name,
            one.email,
            path,
            `Mailing ${(batch % 20) + 1}`,
            'Tenancy agreement',
            one.plot,
            one.site,
            one.street,
            one.town,
            one.phone,
            one.iban,
            String(index),
          ].join(' '),
        ]);
      }
    }
    database.exec('COMMIT');
  }
  database.exec('ANALYZE');
  database.pragma('wal_checkpoint(TRUNCATE)');
  database.close();
}

/** How long the ledger of so many copies takes to answer. */
export async function ledgerBench(): Promise<void> {
  const count = Number(option('records', '1000000'));
  const mailbag = await startMailbag();
  try {
    const client = new ServerClient(mailbag.address);
    await client.send('POST', '/api/account/set-up', {
      name: 'Bench',
      email: 'bench@larkmere.example',
      password: 'a long enough password',
    });
    const from = performance.now();
    fillLedger(join(mailbag.data, 'mailbag.sqlite'), count);
    const fillSeconds = Math.round((performance.now() - from) / 1000);
    const day = new Date(Date.parse('2024-01-01T00:00:00Z') + (count - 20_000) * 60_000).toISOString().slice(0, 10);
    const questions: Record<string, string> = {
      newest: '',
      'by state': 'state=bounced',
      'by mailing and state': 'mailing=7&state=unconfirmed',
      'by batch': 'batch=42',
      'by trouble': 'trouble=address',
      'by days': `from=${day}`,
      'by days and state': `from=${day}&state=sent`,
      'one code': `text=T${(count - 7).toString(36).padStart(7, '0')}`,
      'a rare word': `text=${(123_456).toString(36)}`,
      'a name': 'text=quist',
      'a common word': 'text=agreement',
      'two common words': 'text=mill%20lane',
      'beginning of a word': 'text=ag',
      'one letter': 'text=a',
      'a name and a state': 'text=quist&state=bounced',
      'a common word and a rare state': 'text=agreement&state=retrying',
      'no such word': 'text=xyzzyplugh',
      'by recipient': 'sort=recipient',
      'changed last': 'sort=changed',
    };
    const timed = async (path: string): Promise<{ first: number; median: number }> => {
      const times: number[] = [];
      for (let tries = 0; tries < 6; tries++) {
        const asked = performance.now();
        await client.get(path);
        times.push(performance.now() - asked);
      }
      return { first: Math.round(times[0]!), median: Math.round([...times].sort((a, b) => a - b)[3]!) };
    };
    const answers: Record<string, { page: { first: number; median: number }; counts: { first: number; median: number } }> = {};
    for (const [name, query] of Object.entries(questions))
      answers[name] = { page: await timed(`/api/copies?count=100&${query}`), counts: await timed(`/api/copies/counts?${query}`) };
    answers.desk = { page: await timed('/api/desk'), counts: { first: 0, median: 0 } };
    const all = Object.values(answers).flatMap(({ page, counts }) => [page.median, counts.median]);
    console.log(JSON.stringify({ case: `ledger of ${count} copies`, fillSeconds, worstMedianMs: Math.max(...all), answers }));
  } finally {
    mailbag.stop();
  }
}
