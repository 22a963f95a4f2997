import { describe, expect, it } from 'vitest';
import { meant, ranked } from './go';

const places = [
  { name: 'Net Loft', also: 'Gannet Bay' },
  { name: 'Loft Choir' },
  { name: 'Pictures' },
  { name: 'Add a listing', also: 'new' },
  { name: 'Lantern Quay' },
];
const find = (typed: string): string[] => ranked(typed, places, 3).map((p) => p.name);

describe('where somebody wants to go', () => {
  it('is what begins so, then what has such words, then what nearly has', () => {
    expect(find('loft')).toEqual(['Loft Choir', 'Net Loft']);
    expect(find('gannet')).toEqual(['Net Loft']);
    expect(find('loft net')).toEqual(['Net Loft']);
    expect(find('picutres')).toEqual(['Pictures']);
    expect(find('lantren q')).toEqual(['Lantern Quay']);
    expect(find('new')[0]).toBe('Add a listing');
  });
  it('is nothing for nothing, and for what is not there', () => {
    expect([find(''), find('  '), find('xylophone'), find('loft xylophone')]).toEqual([[], [], [], []]);
    expect(meant('loft', { name: '' })).toBe(0);
  });
});
