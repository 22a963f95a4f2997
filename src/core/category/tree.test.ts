import { describe, expect, it } from 'vitest';
import { between, pick, random } from '../../../tests/support/generate';
import { movedInTree, steppedInTree, type TreeItem } from './tree';

const tree = (...words: string[]): TreeItem[] => {
  let parent: string | null = null;
  return words.map((word) => {
    if (word.startsWith('-')) return { id: word.slice(1), parentId: parent };
    parent = word;
    return { id: word, parentId: null };
  });
};
const show = (items: TreeItem[] | string): string =>
  typeof items === 'string' ? items : items.map((i) => (i.parentId ? `-${i.id}` : i.id)).join(' ');
const START = tree('water', '-racing', '-charts', 'music', '-choirs', 'town');

describe('categories in a tree', () => {
  it('move with those under them, before, behind and under others', () => {
    expect(show(movedInTree(START, { id: 'music', target: 'water', position: 'before' }))).toBe('music -choirs water -racing -charts town');
    expect(show(movedInTree(START, { id: 'town', target: 'water', position: 'after' }))).toBe('water -racing -charts town music -choirs');
    expect(show(movedInTree(START, { id: 'town', target: 'water', position: 'on' }))).toBe('water -racing -charts -town music -choirs');
    expect(show(movedInTree(START, { id: 'racing', target: 'choirs', position: 'after' }))).toBe(
      'water -charts music -choirs -racing town',
    );
  });
  it('stay two levels deep, and never under themselves', () => {
    expect(movedInTree(START, { id: 'town', target: 'racing', position: 'on' })).toContain('two levels');
    expect(movedInTree(START, { id: 'water', target: 'music', position: 'on' })).toContain('stays at the top');
    expect(movedInTree(START, { id: 'water', target: 'racing', position: 'before' })).toContain('under itself');
    expect(movedInTree(START, { id: 'water', target: 'water', position: 'on' })).toContain('stays');
  });
  it('step by keyboard', () => {
    expect(show(steppedInTree(START, 'music', 'up'))).toBe('music -choirs water -racing -charts town');
    expect(show(steppedInTree(START, 'racing', 'down'))).toBe('water -charts -racing music -choirs town');
    expect(show(steppedInTree(START, 'charts', 'out'))).toBe('water -racing charts music -choirs town');
    expect(show(steppedInTree(START, 'town', 'in'))).toBe('water -racing -charts music -choirs -town');
    expect(
      [
        steppedInTree(START, 'water', 'up'),
        steppedInTree(START, 'town', 'down'),
        steppedInTree(START, 'water', 'in'),
        steppedInTree(START, 'choirs', 'in'),
      ].every((r) => typeof r === 'string'),
    ).toBe(true);
  });
  it('lose none and stay a tree of two levels whatever is done', () => {
    const r = random(11);
    let items = START;
    for (let n = 0; n < 2000; n++) {
      const move = { id: pick(r, items).id, target: pick(r, items).id, position: pick(r, ['before', 'after', 'on'] as const) };
      const next = between(r, 0, 1)
        ? movedInTree(items, move)
        : steppedInTree(items, move.id, pick(r, ['up', 'down', 'in', 'out'] as const));
      if (typeof next === 'string') continue;
      items = next;
      expect(items.map((i) => i.id).sort()).toEqual(START.map((i) => i.id).sort());
      let top: string | null = null;
      for (const item of items) {
        if (item.parentId) expect(item.parentId).toBe(top);
        else top = item.id;
      }
    }
  });
});
