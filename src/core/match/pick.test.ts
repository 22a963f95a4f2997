import { describe, expect, it } from 'vitest';
import { pick, rankOf } from './pick';

const venue = (name: string, more = '') => ({ name, more });
const ALL = [
  venue('Causeway Slip', 'Gannet Bay'),
  venue('Net Loft', 'Gannet Bay'),
  venue('Market Quay', 'Port Amble'),
  venue('St Bride’s Hall', 'Port Amble'),
  venue('Bride’s Well', 'Outer Skerry'),
  venue('Planet Room', 'Lantern Quay'),
];
const names = (typed: string) => pick(typed, ALL, 12).shown.map((v) => v.name);

describe('choosing by a few letters', () => {
  it('takes the name that begins so, not a town that holds the letters', () => {
    expect(pick('net l', ALL, 12)).toMatchObject({ shown: [{ name: 'Net Loft' }], clear: true });
    expect(names('net')).toEqual(['Net Loft', 'Planet Room']);
    expect(pick('net', ALL, 12).clear).toBe(true);
  });
  it('ranks: begins, words begin, inside, area, slips', () => {
    const cases: [string, string, string | undefined][] = [
      ['net loft', 'Net Loft', 'whole'],
      ['ne', 'Net Loft', 'begins'],
      ['hall bri', 'St Bride’s Hall', 'words'],
      ['anet', 'Planet Room', 'inside'],
      ['amble qu', 'Market Quay', 'area'],
      ['marekt', 'Market Quay', 'slips'],
      ['causway', 'Causeway Slip', 'slips'],
      ['harbour', 'Net Loft', undefined],
    ];
    for (const [typed, name, rank] of cases) expect(rankOf(typed, ALL.find((v) => v.name === name) ?? venue('')), typed).toBe(rank);
  });
  it('takes nothing by itself while it is unclear', () => {
    expect(names('bride')).toEqual(['Bride’s Well', 'St Bride’s Hall']);
    expect(pick('quay', ALL, 12)).toMatchObject({ clear: true, shown: [{ name: 'Market Quay' }, { name: 'Planet Room' }] });
    for (const typed of ['gannet', 'port', 'marekt', '', 'b ']) expect(pick(typed, ALL, 12).clear && typed !== 'b ', typed).toBe(false);
    expect(pick('e', [venue('East Hall'), venue('Elm Hall')], 12).clear).toBe(false);
  });
  it('says how many there are beside those shown', () => {
    const many = Array.from({ length: 16 }, (_, i) => venue(`Hall ${i + 1}`));
    expect(pick('hall', many, 12)).toMatchObject({ total: 16, clear: false });
    expect(pick('hall', many, 12).shown).toHaveLength(12);
    expect(pick('hall 1', many, 12)).toMatchObject({ shown: expect.arrayContaining([many[0]]), clear: true });
  });
});
