/** What is given to operators to run the site by: a unit of systemd and a container's file. */
import { existsSync, readFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';

const UNIT = 'deploy/plain-almanac.service';
const CONTAINER = readFileSync('deploy/Containerfile', 'utf8');
const canVerify = spawnSync('systemd-analyze', ['--version']).status === 0;
const operating = readFileSync('docs/operating.md', 'utf8');

describe('the unit of systemd', () => {
  it.skipIf(!canVerify)('is one that systemd understands, and leaves the site little to reach', () => {
    const verified = spawnSync('systemd-analyze', ['verify', UNIT], { encoding: 'utf8' });
    expect(verified.status, verified.stderr).toBe(0);
    const security = spawnSync('systemd-analyze', ['security', '--offline=true', UNIT], { encoding: 'utf8' });
    expect(Number(/exposure level for .*: ([\d.]+)/.exec(security.stdout)?.[1])).toBeLessThan(2.5);
  });
  it('waits longer than the site needs to stop, and names settings that there are', () => {
    const unit = readFileSync(UNIT, 'utf8');
    expect(Number(/TimeoutStopSec=(\d+)/.exec(unit)?.[1])).toBeGreaterThan(30);
    for (const [name] of `${unit}${CONTAINER}`.matchAll(/ALMANAC_[A-Z_]+/g)) expect(operating, name).toContain(`\`${name}\``);
  });
});

describe('the container’s file', () => {
  it('takes along what is there, and what the site reads at run time', () => {
    const taken = [...CONTAINER.matchAll(/COPY --from=build \/app\/(\S+)/g)].map((match) => match[1] as string);
    for (const file of taken.filter((one) => !['dist', 'node_modules'].includes(one))) expect(existsSync(file), file).toBe(true);
    // What is read by its path, not by an import.
    for (const needed of ['src/server/db/pglite-worker.mjs', 'migrations', 'dist', 'package.json']) expect(taken).toContain(needed);
  });
  it('runs as somebody else than root, with its data apart, and asks whether it is ready', () => {
    expect(CONTAINER).toMatch(/^USER node$/m);
    expect(CONTAINER).toMatch(/^VOLUME \/data$/m);
    expect(CONTAINER).toContain('/readyz');
  });
});
