import type { Challenge } from 'altcha-lib';
import { solveChallenge } from 'altcha-lib';
import { deriveKey } from 'altcha-lib/algorithms/sha';
import { Puzzles } from './puzzles.js';

const proofOf = async (challenge: Challenge): Promise<string> =>
  Buffer.from(JSON.stringify({ challenge, solution: await solveChallenge({ challenge, deriveKey }) })).toString('base64');

test('a puzzle that was solved is taken once, for the intake that it was made for', async () => {
  const puzzles = new Puzzles();
  const proof = await proofOf(await puzzles.make('permits'));
  await expect(puzzles.take('others', proof)).rejects.toThrow('puzzle');
  const both = await Promise.allSettled([puzzles.take('permits', proof), puzzles.take('permits', proof)]);
  expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  await expect(puzzles.take('permits', proof)).rejects.toThrow('puzzle');
});

test('what was not solved, made easier, made elsewhere, or is over, proves nothing', async () => {
  const puzzles = new Puzzles();
  const challenge = await puzzles.make('permits');
  const guess = (of: unknown, solution: unknown = { counter: 1, derivedKey: '00'.repeat(32) }): string =>
    Buffer.from(JSON.stringify({ challenge: of, solution })).toString('base64');
  const easy = { ...challenge, parameters: { ...challenge.parameters, keyPrefix: '0' } };
  const foreign = await new Puzzles().make('permits');
  const over = await new Puzzles(() => Date.now() - 3_600_000).make('permits');
  for (const proof of [
    undefined,
    '',
    'x',
    guess(challenge),
    guess(challenge, null),
    guess(null),
    await proofOf(easy),
    await proofOf(foreign),
    await proofOf(over),
  ])
    // prettier-ignore
    await expect(puzzles.take('permits', proof)).rejects.toThrow('puzzle');
});
