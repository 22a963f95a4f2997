import { beforeEach, describe, expect, it } from 'vitest';
import { freshDb } from '../../../tests/support/db';
import { ADDRESS_HEADER, createAuth } from '../accounts/auth';
import type { Db } from '../db/client';
import { rateBound, rateLimit } from '../db/schema';
import { countOne } from './rate-limits';

let db: Db;
beforeEach(async () => {
  db = await freshDb();
});

describe('a bound on how often', () => {
  const bound = { key: 'add:127.0.0.1', most: 3, seconds: 600 };
  it('lets so many through in its window, says when to try again, and begins anew after it', async () => {
    for (let i = 0; i < 3; i++) await countOne(db, bound, 1_000_000 + i);
    await expect(countOne(db, bound, 1_000_010)).rejects.toThrow('try again in 10 minutes');
    await expect(countOne(db, bound, 1_000_000 + 590_000)).rejects.toThrow('try again in 1 minute.');
    await countOne(db, { ...bound, key: 'add:127.0.0.2' }, 1_000_010);
    await countOne(db, bound, 1_000_000 + 600_001);
  });
  it('holds when many come at the same moment', async () => {
    const all = await Promise.allSettled(Array.from({ length: 20 }, () => countOne(db, bound, 5_000_000)));
    expect(all.filter((one) => one.status === 'fulfilled')).toHaveLength(3);
  });
  it('is not forgotten when the sign-in library clears away its own old counts', async () => {
    const hour = { ...bound, seconds: 3600 };
    const now = Date.now();
    const auth = createAuth(db, {
      secret: 'x'.repeat(32),
      siteUrl: () => 'http://127.0.0.1',
      siteName: () => 'Kittiwick Isles',
    });
    const signIn = () =>
      auth.handler(
        new Request('http://127.0.0.1/api/auth/sign-in/email', {
          method: 'POST',
          headers: { 'content-type': 'application/json', [ADDRESS_HEADER]: '127.0.0.1' },
          body: JSON.stringify({ email: 'nobody@almanac.example', password: 'wrong-password-1' }),
        }),
      );
    await signIn();
    for (let i = 0; i < 3; i++) await countOne(db, hour, now - 1_800_000);
    // The library clears away counts older than its longest window when one of its own has run out.
    await db.update(rateLimit).set({ lastRequest: now - 1_800_000 });
    await signIn();
    await expect(countOne(db, hour, now)).rejects.toThrow('try again in 30 minutes');
  });
  it('leaves no counts behind that ran out a day ago', async () => {
    await countOne(db, { ...bound, key: 'add:127.0.0.3' }, 0);
    await countOne(db, bound, 86_400_000 + 600_001);
    expect((await db.select().from(rateBound)).map((row) => row.key)).toEqual([bound.key]);
  });
});
