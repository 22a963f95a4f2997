// Loaded into the measured server: says its event loop's delay on SIGUSR2, and begins anew.
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { isMainThread } from 'node:worker_threads';

if (isMainThread) {
  const delay = monitorEventLoopDelay({ resolution: 5 });
  delay.enable();
  process.on('SIGUSR2', () => {
    console.log(`LAG ${JSON.stringify({ p50: delay.percentile(50) / 1e6, p99: delay.percentile(99) / 1e6, max: delay.max / 1e6 })}`);
    delay.reset();
  });
}
