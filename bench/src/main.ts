const benches: Record<string, () => Promise<void>> = {
  fill: async () => (await import('./fill.js')).fillBench(),
  sheet: async () => (await import('./sheet.js')).sheetBench(),
  batch: async () => (await import('./batch.js')).batchBench(),
};

const wanted = process.argv[2] ?? '';
const bench = benches[wanted];
if (!bench) {
  console.error(`npm run bench -- ${Object.keys(benches).join('|')}`);
  process.exit(2);
}
await bench();
