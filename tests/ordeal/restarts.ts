/** A database server that restarts under two processes which are read and written to. */
import { random, seedOf } from '../support/generate';
import type { Served } from '../support/served';
import { type Acknowledged, Editor, evening, type Figures, freshPage, lostOf, Readers, wait } from './ordeal';
import { twoProcesses } from './two-processes';

export async function restarts(figures: Figures, times: number): Promise<void> {
  const r = random(seedOf());
  await twoProcesses(async (sites, server) => {
    const acknowledged: Acknowledged[] = [];
    const answers = new Map<string, number>();
    let working = true;
    const { cookie } = await Editor.signIn(sites[0].url);
    const write = async (site: Served, who: string): Promise<void> => {
      const editor = new Editor(site.url, cookie);
      for (let n = 0; working; n++) {
        const answer = await editor.post('/api/v1/listings', { content: evening(r, `${who} ${n}`) }).catch((error: Error) => error);
        const said = answer instanceof Error ? answer.name : String(answer.status);
        answers.set(said, (answers.get(said) ?? 0) + 1);
        if (answer instanceof Error) continue;
        const body = (await answer.json()) as { id: string; slug: string };
        if (answer.status === 200) acknowledged.push({ ...body, published: false });
        else await wait(50);
      }
    };
    const writers = sites.flatMap((site, k) => [0, 1].map((n) => write(site, `Watch ${k} ${n}`)));
    const readers = sites.map((site) => new Readers(site.url, 100, (n) => freshPage(r, n)));
    for (let i = 0; i < times; i++) {
      await wait(1_000);
      await server.down(i % 2 ? 'immediate' : 'fast');
      await wait(300);
      await server.up();
    }
    await wait(3_000);
    working = false;
    await Promise.all(writers);
    const read = await Promise.all(readers.map((one) => one.stop()));
    figures.say(
      `${times} restarts, ${acknowledged.length} listings acknowledged, answers to writers: ${[...answers].map(([said, n]) => `${n} x ${said}`).join(', ')}`,
    );
    figures.is('acknowledged writes lost to restarts of the server', (await lostOf(sites[1].url, cookie, acknowledged)).length, 0);
    figures.is('processes that ended', sites.filter((site) => site.process.exitCode !== null).length, 0);
    const others = [...answers].filter(([said]) => !['200', '503'].includes(said)).reduce((n, [, count]) => n + count, 0);
    figures.is('writers answered with neither done nor come back', others, 0);
    const failed = read.reduce((n, one) => n + one.failed, 0);
    figures.say(
      `readers: ${read.reduce((n, one) => n + one.times.length, 0)} pages, ${read.reduce((n, one) => n + one.refused, 0)} told to come back`,
    );
    figures.is('readers who got an error', failed, 0);
  });
}
