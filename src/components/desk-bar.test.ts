import { describe, expect, it } from 'vitest';
import type { Role } from '@/server/accounts/roles';
import { barOf, groupOf } from './desk-bar';

const NOBODY_WAITS = { today: 20_894, intake: 0, remarks: 0, takesEvents: true };
const barFor = (role: Role, state = NOBODY_WAITS) => barOf({ id: 'a', name: 'Maud Petrel', role }, state);
const wordsFor = (role: Role, state = NOBODY_WAITS) => barFor(role, state).map(({ name }) => name);

describe('the Desk’s bar', () => {
  it('has at most eight words, by the work and by who works', () => {
    expect(wordsFor('coordinator')).toEqual(['Today', 'Listings', 'Calendar', 'Intake', 'Places & people', 'Publishing', 'Settings']);
    expect(wordsFor('editor')).toEqual(['Today', 'Listings', 'Calendar', 'Intake', 'Places & people']);
    expect(wordsFor('contributor')).toEqual(['Today', 'Listings', 'Calendar']);
  });

  it('has no Intake where nobody may send anything in, until something waits', () => {
    const off = { ...NOBODY_WAITS, takesEvents: false };
    expect(wordsFor('editor', off)).not.toContain('Intake');
    const [waiting] = barFor('editor', { ...off, remarks: 2 }).filter(({ name }) => name === 'Intake');
    expect(waiting?.pages.map(({ id, count }) => [id, count])).toEqual([['remarks', 2]]);
    expect(wordsFor('editor', { ...off, intake: 1 })).toContain('Intake');
  });

  it('knows which word an open page belongs to', () => {
    const bar = barFor('coordinator');
    const word = (current: string): string | undefined => groupOf(bar, current)?.name;
    expect(['proof', 'listing', 'remarks', 'organizers', 'mail', 'set-up-days', 'health', 'nowhere'].map(word)).toEqual([
      'Listings',
      'Listings',
      'Intake',
      'Places & people',
      'Publishing',
      'Settings',
      'Settings',
      undefined,
    ]);
  });
});
