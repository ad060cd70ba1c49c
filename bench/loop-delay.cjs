/** Loaded before a server: writes down how long its event loop was held, in milliseconds, twice a second. */
const [{ writeFileSync }, { monitorEventLoopDelay }, { isMainThread }] = [
  require('node:fs'),
  require('node:perf_hooks'),
  require('node:worker_threads'),
];

const file = process.env.LOOP_DELAY_FILE;
if (isMainThread && file) {
  const delay = monitorEventLoopDelay({ resolution: 5 });
  // Loading the server is not answering anybody.
  setTimeout(() => delay.enable(), 5000).unref();
  setInterval(() => {
    const part = (share) => Math.round(delay.percentile(share) / 1e5) / 10;
    writeFileSync(file, JSON.stringify({ median: part(50), p99: part(99), most: Math.round(delay.max / 1e5) / 10 }));
  }, 500).unref();
}
