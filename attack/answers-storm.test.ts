import { RunningMailbag } from '../testing/running-mailbag.js';
import { smallIntake, stranger } from '../testing/small-intake.js';

/** Answers that come while the server is killed again and again: each that was acknowledged is there, once, and has its copy once. With ATTACK=whole there are 2,000 and 20 kills. */
const [ANSWERS, KILLS] = process.env.ATTACK === 'whole' ? [2000, 20] : [120, 3];
const AT_ONCE = 8;
const mailbag = new RunningMailbag({ MAILBAG_VISITOR_LIMITS: '100000' });
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

test('no acknowledged answer is lost, and none is there twice, however often it was sent', async () => {
  const { intake, edition, idOf } = await smallIntake(mailbag.client);
  const acknowledged = new Map<string, string>();
  let next = 0;
  let isOver = false;
  const send = async (number: number): Promise<void> => {
    const key = `answer-${String(number).padStart(12, '0')}`;
    const body = {
      edition,
      key,
      language: 'en',
      answers: { [idOf('Plot number')]: `N-${number}`, [idOf('E-mail address')]: `n${number}@example.org` },
    };
    for (;;) {
      // Every third is sent twice at the same time, as by a double tap.
      const tries = Array.from({ length: number % 3 === 0 ? 2 : 1 }, () =>
        stranger(mailbag.address, 'POST', `/api/public/intakes/${intake.word}/submissions`, body)
          .then(async (answer) => (answer.ok ? ((await answer.json()) as { number: string | null }).number : null))
          .catch(() => null),
      );
      const numbers = new Set((await Promise.all(tries)).filter((one) => one !== null));
      if (numbers.size > 0) {
        expect(numbers.size).toBe(1);
        acknowledged.set(key, [...numbers][0]!);
        return;
      }
      await new Promise((done) => setTimeout(done, 60));
    }
  };
  const sender = async (): Promise<void> => {
    while (next < ANSWERS) await send(next++);
  };
  const killer = (async () => {
    for (let kill = 1; kill <= KILLS; kill++) {
      while (acknowledged.size < (ANSWERS * kill) / (KILLS + 1) && !isOver) await new Promise((done) => setTimeout(done, 20));
      await mailbag.kill();
      await mailbag.startAgain();
    }
  })();
  await Promise.all([...Array.from({ length: AT_ONCE }, sender), killer]).finally(() => (isOver = true));
  expect(acknowledged.size).toBe(ANSWERS);
  type Page = { total: number; lines: { number: string; values: Record<string, string>; copies: number }[] };
  await mailbag.client.until<{ count: number }>(`/api/sources/${intake.sourceId}`, ({ count }) => count === ANSWERS, 240);
  const all: Page['lines'] = [];
  for (let from = 0; from < ANSWERS; from += 500)
    all.push(
      ...(
        await mailbag.client.until<Page>(
          `/api/intakes/${intake.id}/submissions?from=${from}&count=500`,
          ({ lines }) => lines.every(({ copies }) => copies > 0),
          240,
        )
      ).lines,
    );
  expect(all).toHaveLength(ANSWERS);
  expect(new Set(all.map(({ number }) => number))).toEqual(new Set(acknowledged.values()));
  expect(new Set(all.map(({ values }) => values['Plot number'])).size).toBe(ANSWERS);
  expect(all.filter(({ copies }) => copies !== 1)).toEqual([]);
});
