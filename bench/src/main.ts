const benches: Record<string, () => Promise<void>> = {
  fill: async () => (await import('./fill.js')).fillBench(),
  sheet: async () => (await import('./sheet.js')).sheetBench(),
  mail: async () => (await import('./mail.js')).mailBench(),
  ledger: async () => (await import('./ledger.js')).ledgerBench(),
  people: async () => (await import('./people.js')).peopleBench(),
  understanding: async () => (await import('./understanding.js')).understandingBench(),
  drawing: async () => (await import('./drawing.js')).drawingBench(),
  checks: async () => (await import('./checks.js')).checksBench(),
  intake: async () => (await import('./intake.js')).intakeBench(),
  page: async () => (await import('./page.js')).pageBench(),
  screens: async () => (await import('./screens.js')).screensBench(),
  batch: async () => (await import('./batch.js')).batchBench(),
};

const wanted = process.argv[2] ?? '';
const bench = benches[wanted];
if (!bench) {
  console.error(`npm run bench -- ${Object.keys(benches).join('|')}`);
  process.exit(2);
}
await bench();
