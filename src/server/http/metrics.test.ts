import { beforeEach, describe, expect, it } from 'vitest';
import { freshDb } from '../../../tests/support/db';
import { siteOf } from '../../../tests/support/site';
import { Tasks } from '../health/tasks';
import type { Runtime } from '../runtime-type';
import { hasToken, isOwnMachine, metricsOf, pagesOf } from './metrics';

let site: Runtime;
beforeEach(async () => {
  const quiet = { error: () => undefined, info: () => undefined };
  site = { ...siteOf(await freshDb()), sendsMail: true, tasks: new Tasks(quiet) };
});

describe('measurements', () => {
  it('count answers by route, method and status, and say how the site is', async () => {
    const metrics = metricsOf(site);
    metrics.answered('/month', 'GET', 200, 0.004);
    metrics.answered('/month', 'GET', 200, 0.3);
    metrics.answered('/desk/listings', 'POST', 503, 0.01);
    await pagesOf(site).answer({ address: '/', etag: '1', make: async () => new Response('x'.repeat(3000)) });
    site.tasks.failed('mail', new Error('no service'));
    const text = await metricsOf(site).text(site, new Date());
    expect(text).toContain('almanac_requests_total{route="/month",method="GET",status="200"} 2');
    expect(text).toContain('almanac_requests_total{route="/desk/listings",method="POST",status="503"} 1');
    expect(text).toContain('almanac_request_seconds_bucket{le="0.005",route="/month"} 1');
    expect(text).toContain('almanac_database_up 1');
    expect(text).toContain('almanac_tasks_failing 1');
    expect(Number(/^almanac_kept_pages_bytes (\d+)$/m.exec(text)?.[1])).toBeGreaterThan(3000);
    expect(text).toContain('almanac_finder_ready 0');
    expect(text).toContain('process_resident_memory_bytes');
    const broken = { ...site, db: { execute: () => Promise.reject(new Error('gone')) } as unknown as Runtime['db'] };
    expect(await metrics.text(broken, new Date())).toContain('almanac_database_up 0');
  });
  it('are for this machine, or with a token that is long enough', () => {
    expect(['127.0.0.1', '::1', '::ffff:127.0.0.1', '10.0.0.1', '', '1127.0.0.1'].map((address) => isOwnMachine(address))).toEqual([
      true,
      true,
      true,
      false,
      false,
      false,
    ]);
    const token = 'a-long-enough-token';
    expect(isOwnMachine('127.0.0.1', true)).toBe(false);
    expect(hasToken(`Bearer ${token}`, token)).toBe(true);
    for (const [header, wanted] of [
      [`Bearer ${token}x`, token],
      [token, token],
      [null, token],
      ['Bearer short', 'short'],
      ['Bearer ', ''],
      ['Bearer undefined', undefined],
    ] as const)
      expect(hasToken(header, wanted), String(header)).toBe(false);
  });
});
