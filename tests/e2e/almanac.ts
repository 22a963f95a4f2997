/** The operator's command line, as journeys call it. */
import { spawnSync } from 'node:child_process';

/** The built command line. */
export const CLI = 'dist/cli/main.mjs';

/** Runs a command to its end, with the clock of this machine unless `env` has another. */
export const run = (args: string[], env: Record<string, string> = {}, input = '') =>
  spawnSync('node', [CLI, ...args], { encoding: 'utf8', input, env: { ...process.env, ALMANAC_NOW: '', ...env } });
