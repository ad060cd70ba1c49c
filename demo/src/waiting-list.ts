import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'libsql';
import { Random } from './random.js';

const first = ['Odalys', 'Bram', 'Nkechi', 'Yusra', 'Pavel', 'Mei', 'Ioana', 'Farid', 'Sunniva', 'Calum'];
const last = ['Thornebury', 'Vasko', 'Adeyemi-Holt', 'Larkwell', 'Mirov', 'Tanabe', 'Crane-Okafor', 'Silvester', 'Quill', 'Ravn'];
const sites = ['Mill Lane', 'Larkmere Hill', 'Canal Side', 'Old Orchard'];

/** The waiting list for plots as the office keeps it: a small SQLite database. */
export function waitingList(): Uint8Array {
  const random = new Random(412);
  const folder = mkdtempSync(join(tmpdir(), 'larkmere-'));
  const path = join(folder, 'waiting-list.sqlite');
  try {
    const database = new Database(path);
    database.exec(
      'CREATE TABLE applicant (number TEXT PRIMARY KEY, name TEXT NOT NULL, email TEXT, asked_on TEXT NOT NULL, site TEXT NOT NULL, wanted_area INTEGER); CREATE TABLE offer (number TEXT REFERENCES applicant(number), plot TEXT NOT NULL, offered_on TEXT NOT NULL);',
    );
    const insert = database.prepare('INSERT INTO applicant VALUES (?, ?, ?, ?, ?, ?)');
    for (let index = 0; index < 64; index++) {
      const name = `${random.pick(first)} ${random.pick(last)}`;
      const day = new Date(Date.UTC(2024, 1, 3 + index * 15));
      insert.run([
        `W-${String(index + 1).padStart(3, '0')}`,
        name,
        index % 9 === 4 ? null : `applicant${index + 1}@example.org`,
        day.toISOString().slice(0, 10),
        random.pick(sites),
        80 + random.whole(20) * 10,
      ]);
    }
    database.close();
    return new Uint8Array(readFileSync(path));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
