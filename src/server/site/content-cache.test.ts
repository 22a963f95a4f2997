import { describe, expect, it } from 'vitest';
import { Answers, askOnce, ContentCache } from './content-cache';

describe('answers of one state of the content', () => {
  it('are asked once, again after a failure, and what was asked for longest ago is forgotten first', async () => {
    const answers = new Answers('1');
    let asked = 0;
    const ask = async (fails = false): Promise<number> => {
      asked++;
      if (fails) throw new Error('the database was away');
      return asked;
    };
    await expect(answers.of('one', () => ask(true))).rejects.toThrow('away');
    expect(await answers.of('one', ask)).toBe(2);
    expect(await answers.of('one', ask)).toBe(2);
    for (let i = 0; i < 49; i++) await answers.of(`other ${i}`, ask);
    // It is asked for again, so another goes before it.
    expect(await answers.of('one', ask)).toBe(2);
    await answers.of('one more', ask);
    expect(await answers.of('one', ask)).toBe(2);
    expect(await answers.of('other 0', ask)).toBe(53);
    expect(await askOnce(undefined, 'one', ask)).toBe(54);
  });

  it('never let a transaction wait for whoever waits for it', async () => {
    const answers = new Answers('1');
    // The database: one turn after the other, and a transaction holds its turn until it is over.
    let free: () => void = () => undefined;
    const over = new Promise<void>((done) => {
      free = done;
    });
    const outside = answers.of('hall', async () => {
      await over;
      return 'read after it';
    });
    const inside = answers.inTransaction();
    expect(await inside.of('hall', async () => 'read within it')).toBe('read within it');
    expect(await inside.of('hall', async () => 'read twice')).toBe('read within it');
    // What is there already is shared, and what was read within is known outside.
    await answers.of('loft', async () => 'known');
    expect(await inside.of('loft', async () => 'asked again')).toBe('known');
    expect(await answers.of('hall', async () => 'asked again')).toBe('read within it');
    free();
    expect(await outside).toBe('read after it');
    expect(inside.comesBack('hall')).toBe(false);
    expect(answers.comesBack('hall')).toBe(true);
    await expect(inside.of('bad', () => Promise.reject(new Error('the database was away')))).rejects.toThrow('away');
    expect(await inside.of('bad', async () => 'there again')).toBe('there again');
  });

  it('tell who comes back', () => {
    const answers = new Answers('1');
    expect([answers.comesBack('hall'), answers.comesBack('hall'), answers.comesBack('loft')]).toEqual([false, true, false]);
  });
});

describe('a site’s cache', () => {
  it('begins anew when the content changes, keeps what lasts, and is no other site’s', async () => {
    let revision = 1;
    const cache = new ContentCache(() => String(revision));
    const other = new ContentCache(() => String(revision));
    const list = cache.keep('list', () => [1]);
    await cache.now().of('n', async () => 'before');
    expect(await cache.now().of('n', async () => 'again')).toBe('before');
    expect(await other.now().of('n', async () => 'its own')).toBe('its own');
    revision++;
    expect(await cache.now().of('n', async () => 'after')).toBe('after');
    expect(cache.keep('list', () => [2])).toBe(list);
    expect(other.keep('list', () => [3])).toEqual([3]);
  });
});
