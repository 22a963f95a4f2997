import { describe, expect, it } from 'vitest';
import { FirstVisitKey, KEY_LASTS } from './key';

const NOON = 1_800_000_000_000;

describe('the key of a site that nobody has begun with', () => {
  it('opens in the first browser that comes with it, there again and again, and in no other', () => {
    const door = new FirstVisitKey();
    const key = door.make(NOON);
    const first = door.open(key, '', NOON + 1);
    if (first.kind !== 'opened') throw new Error(first.kind);
    expect(door.admits(first.pass, NOON + 2)).toBe(true);
    expect(door.open(key, first.pass, NOON + 3)).toEqual({ kind: 'opened', pass: first.pass });
    expect(door.open(key, '', NOON + 4)).toEqual({ kind: 'used' });
    expect(door.open(key, 'made up', NOON + 4)).toEqual({ kind: 'used' });
    expect(door.admits('made up', NOON + 4)).toBe(false);
    expect(door.admits('', NOON + 4)).toBe(false);
  });
  it('is good for an hour, and so is what it opened', () => {
    const door = new FirstVisitKey();
    const key = door.make(NOON);
    const late = new FirstVisitKey();
    const unused = late.make(NOON);
    const opened = door.open(key, '', NOON + KEY_LASTS);
    if (opened.kind !== 'opened') throw new Error(opened.kind);
    expect(door.admits(opened.pass, NOON + KEY_LASTS)).toBe(true);
    expect(door.admits(opened.pass, NOON + KEY_LASTS + 1)).toBe(false);
    expect(late.open(unused, '', NOON + KEY_LASTS + 1)).toEqual({ kind: 'late' });
  });
  it('ends when another is made, and when the site is set up', () => {
    const door = new FirstVisitKey();
    const opened = door.open(door.make(NOON), '', NOON);
    if (opened.kind !== 'opened') throw new Error(opened.kind);
    const second = door.make(NOON + 5);
    expect(door.admits(opened.pass, NOON + 6)).toBe(false);
    expect(door.open('no such key', '', NOON + 6)).toEqual({ kind: 'wrong' });
    door.end();
    expect(door.open(second, '', NOON + 7)).toEqual({ kind: 'wrong' });
    expect(door.admits('', NOON + 7)).toBe(false);
  });
  it('opens nothing before there is one', () => {
    expect(new FirstVisitKey().open('', '', NOON)).toEqual({ kind: 'wrong' });
    expect(new FirstVisitKey().admits('', NOON)).toBe(false);
  });
});
