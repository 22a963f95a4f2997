/** Killed a hundred times while people write: what was acknowledged is there, and all that is derived from it is right. */
import { execFileSync } from 'node:child_process';
import { between, random, seedOf } from '../support/generate';
import { serve } from '../support/served';
import { type Acknowledged, Editor, evening, type Figures, lostOf, wait } from './ordeal';

/** Writes and publishes until the site is gone. */
async function write(editor: Editor, r: () => number, who: string, acknowledged: Acknowledged[]): Promise<void> {
  for (let n = 0; ; n++) {
    try {
      const made = await editor.write(evening(r, `${who} ${n}`));
      if (!made) continue;
      const entry = { ...made };
      acknowledged.push(entry);
      if (n % 2 === 0 && (await editor.publish(made.id, made.revision))) entry.published = true;
    } catch {
      // The connection broke: the site was killed.
      return;
    }
  }
}

/** @param data a demo's folder, which is written to */
export async function kills(figures: Figures, data: string, times: number): Promise<void> {
  const r = random(seedOf());
  let lost = 0;
  const all: Acknowledged[] = [];
  let cookie = '';
  for (let round = 0; round < times; round++) {
    const served = await serve({ data, errors: 'ignore' });
    cookie ||= (await Editor.signIn(served.url)).cookie;
    const editor = new Editor(served.url, cookie);
    const before = all.slice(-20);
    const writers = [0, 1, 2, 3].map((k) => write(editor, r, `Watch ${round} ${k}`, all));
    lost += (await lostOf(served.url, cookie, before)).length;
    await wait(between(r, 100, 1_500));
    await served.ended('SIGKILL');
    await Promise.all(writers);
    if ((round + 1) % 20 === 0) figures.say(`${round + 1} kills, ${all.length} listings acknowledged`);
  }
  const served = await serve({ data });
  lost += (await lostOf(served.url, cookie, all)).length;
  await served.stop();
  figures.say(`${times} kills, ${all.length} listings acknowledged, ${all.filter((one) => one.published).length} of them published`);
  figures.is('acknowledged writes lost to kills', lost, 0);
  const env = { ...process.env, ALMANAC_DATA: data, ALMANAC_DEMO: '1', ALMANAC_NOW: '2027-03-17T09:00' };
  const rebuilt = execFileSync('node', ['dist/cli/main.mjs', 'rebuild'], { encoding: 'utf8', env });
  figures.is('listings whose dates were wrong afterwards', Number(/(\d+) differed/.exec(rebuilt)?.[1]), 0);
}
