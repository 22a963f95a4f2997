import { describe, expect, it } from 'vitest';
import { readAmount, readCost } from './cost';

describe('costs as people type them', () => {
  it('are amounts with a sign, a comma, a code', () => {
    const cases: [string, string | undefined][] = [
      ['12', '12'],
      ['$12', '12'],
      ['$ 12.50', '12.50'],
      ['12,50', '12.50'],
      ['12.5', '12.50'],
      ['8 CAD', '8'],
      ['cad 8', '8'],
      ['8 $', '8'],
      ['012', '12'],
      ['12.00', '12'],
      ['12,–', '12'],
      ['€12', undefined],
      ['£ 5', undefined],
      ['12 eggs', undefined],
      ['8–10', undefined],
      ['1,234,567', undefined],
      ['12.505', undefined],
      ['', undefined],
    ];
    for (const [text, amount] of cases) expect(readAmount(text, 'CAD'), text).toBe(amount);
    expect(readAmount('€12', 'EUR')).toBe('12');
  });
  it('are free, words or not said', () => {
    expect(['Free', '0', 'nothing', '0.00'].map((text) => readCost(text, 'CAD').kind)).toEqual(['free', 'free', 'free', 'free']);
    expect(readCost('  ', 'CAD')).toEqual({ kind: 'unsaid' });
    expect(readCost('€12', 'CAD')).toEqual({ kind: 'words', words: '€12' });
    expect(readCost('$8, children free', 'CAD')).toEqual({ kind: 'words', words: '$8, children free' });
  });
});
