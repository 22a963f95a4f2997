/** What Proof says: each sentence with what it names, as an editor reads it. */
import { describe, expect, it } from 'vitest';
import { NOTE_KINDS } from '@/core/validation/kinds';
import { says } from '@/core/validation/saying';
import { sayKind, sayNote } from './proof';

describe('what Proof says', () => {
  it.each([
    [says('noDateYet'), 'No date yet.'],
    [says('short', { minutes: 1 }), 'It lasts 1 minute.'],
    [says('short', { minutes: 5 }), 'It lasts 5 minutes.'],
    [
      says('venueClash', { title: 'Supper', at: 'Tue 23 Mar 19:00', more: 2 }),
      '“Supper” needs the same place: Tue 23 Mar 19:00 and 2 more.',
    ],
    [says('venueClash', { title: 'Supper', at: 'Tue 23 Mar', more: 0 }), '“Supper” needs the same place: Tue 23 Mar.'],
    [says('venueClosed', { name: 'Net Loft', partly: 'no', days: 'Wed 24 Mar', more: 0 }), 'Net Loft is closed on Wed 24 Mar.'],
    [
      says('venueClosed', { name: 'Net Loft', partly: 'yes', days: 'Mon, Tue, Wed', more: 4 }),
      'Net Loft is not open all the time on Mon, Tue, Wed and 4 more.',
    ],
    [
      says('lookalike', { title: 'Seed Swap', titles: 'same', times: 'hour', places: 'same' }),
      '“Seed Swap” may be the same event: the same title, within an hour, in the same place.',
    ],
    [
      says('lookalike', { title: 'Seed Swap', titles: 'alike', times: 'near', places: 'unknown' }),
      '“Seed Swap” may be the same event: a title much like it, at nearly the same time.',
    ],
    [says('addressDead', { field: 'website', why: 'inside' }), 'The website looks dead: it leads to somebody’s own machine.'],
    [says('linkDead', { link: '/x', why: 'no-address' }), 'The link “/x” in the text: it cannot be followed.'],
    [
      says('weekdayDiffers', { field: 'shortTitle', words: 'Friday', weekday: 'Tuesday', day: '23 March 2027' }),
      'The short title says “Friday”, but the date is a Tuesday (23 March 2027).',
    ],
  ])('%j', (saying, sentence) => expect(sayNote(saying)).toBe(sentence));

  it('calls every kind by a name of its own, and one that is no more by its code', () => {
    const names = NOTE_KINDS.map(sayKind);
    expect(new Set(names).size).toBe(NOTE_KINDS.length);
    expect(names).not.toContainEqual(expect.stringMatching(/^[a-z-]+$/));
    expect(sayKind('long-gone')).toBe('long-gone');
  });
});
