import { describe, expect, it } from 'vitest';
import type { Style } from '@/core/phrase/format';
import { HISTORY_WORDS } from '@/words/history';
import { HAPPENING_CODES, sayHappening, sayStep, toKeep } from './happening';

const ENGLISH: Style = { date: 'day-month', hours: '24' };
const ZONE = 'America/Halifax';

describe('what happened', () => {
  it('is said when it is read, in the reader’s language, with how many dates ended', () => {
    const kept = toKeep({ code: 'publishedChanges' }, 2);
    expect(kept).toEqual({ format: 1, code: 'publishedChanges', ended: 2 });
    expect(sayHappening(kept, ENGLISH, ZONE)).toBe('published changes; 2 dates ended');
    expect(sayHappening(kept, { ...ENGLISH, language: 'fr' }, ZONE)).toBe('a publié les changements; 2 dates terminées');
  });

  it('says moments by the site’s clock', () => {
    const kept = toKeep({ code: 'outAndDown', out: '2027-04-06T12:00:00.000Z', down: '2027-05-01T03:30:00.000Z' });
    expect(sayHappening(kept, ENGLISH, ZONE)).toMatch(/^set it to be published .*6 April.* 09:00 and withdrawn .*1 May.* 00:30$/);
  });

  it('keeps the words of before there were codes, and what a submission went through', () => {
    expect(sayHappening(toKeep({ code: 'words', text: '“Net Loft” removed' }), ENGLISH, ZONE)).toBe('“Net Loft” removed');
    expect(sayStep(toKeep({ code: 'sent again' }), 'fr')).toBe('Vous l’avez modifié');
    // A listing and its submission are published by one word each.
    const published = toKeep({ code: 'published' });
    expect([sayHappening(published, ENGLISH, ZONE), sayStep(published, 'en')]).toEqual(['published it', 'Published']);
  });

  it('has words for every code, and no code twice', () => {
    expect(new Set(HAPPENING_CODES).size).toBe(HAPPENING_CODES.length);
    for (const code of HAPPENING_CODES) {
      const kept = { format: 1, code, name: 'n', text: 't', out: '2027-04-06T12:00:00Z', down: '2027-04-06T12:00:00Z' } as never;
      expect(sayHappening(kept, ENGLISH, ZONE), code).not.toMatch(/undefined\W*undefined|^$/);
    }
    expect(Object.keys(HISTORY_WORDS.fr).sort()).toEqual(Object.keys(HISTORY_WORDS.en).sort());
  });
});
