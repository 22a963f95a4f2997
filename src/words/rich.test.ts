import { describe, expect, it } from 'vitest';
import { rich } from './rich';

const b = (text: string) => ({ b: text });

describe('a message with elements', () => {
  it('comes in its parts, in order', () => {
    expect(rich(() => '<b>First</b>, then <b>more</b>.', {}, { b })).toEqual([b('First'), ', then ', b('more'), '.']);
    expect(rich(() => 'none', {}, {})).toEqual(['none']);
  });
  it('takes nothing that is put in for an element', () => {
    const said = rich(
      ({ name, n }: { name: string; n: number }) => `<b>${name}</b>, ${name}: ${n} < 3`,
      { name: '<i>Rue</i> & </b>', n: 2 },
      { b },
    );
    expect(said).toEqual([b('<i>Rue</i> & </b>'), ', <i>Rue</i> & </b>: 2 < 3']);
  });
  it('that names an element which is not given is a fault of ours', () => {
    expect(() => rich(() => 'See <a>it</a>.', {}, { b })).toThrow('<a>');
  });
});
