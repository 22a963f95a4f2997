/** What readers of the demo have sent in. */
import type { EpochDay } from '@/core/day/day';
import { rule } from '@/core/recurrence/model';
import { type DemoListing, SAT, SUN, TUE, next, on, paid, timed, times } from './repeats';

export interface DemoSubmission {
  listing: DemoListing;
  sender: string;
  mail: string;
  message: string;
  where: string;
  daysAgo: number;
}

export function demoSubmissions(today: EpochDay): DemoSubmission[] {
  return [
    {
      sender: 'Rue Dunlin',
      mail: 'rue@dunlin.example',
      message: 'We are new to this. Is the picture all right?',
      where: 'Stair Rocks, Gannet Bay',
      daysAgo: 2,
      listing: {
        title: 'Tide-pool Morning for Children',
        cat: 'wild',
        pic: 'low-tide',
        summary: '',
        text: '<p>Nets, buckets and a good guess at what lives under the weed. We put everything back where it was. Wellingtons, please; two grown-ups come along for every eight children.</p>',
        when: [timed(next(today + 10, SAT), '09:30', '11:30')],
        cost: paid('3'),
      },
    },
    {
      sender: 'Tam Ropewalk',
      mail: 'tam@ropewalk.example',
      message: '',
      where: '',
      daysAgo: 1,
      listing: {
        title: 'Net-making, six evenings',
        cat: 'learn',
        venue: ['workshop'],
        org: ['menders'],
        summary: 'From twine to a landing net in six Tuesdays.',
        text: '<p>Needles and gauges are lent. Left-handers are very welcome; so is patience.</p>',
        when: [timed(next(today + 14, TUE), '19:00', '21:00', rule('weekly', on(TUE)), times(6))],
        cost: paid('24'),
      },
    },
    {
      sender: 'Ola Brae',
      mail: 'ola@brae.example',
      message: 'Same as last year, I hope it is not too early to send it.',
      where: 'the glasshouse',
      daysAgo: 0,
      listing: {
        title: 'SEED SWAP',
        cat: 'seeds',
        summary: '',
        text: '<p>Swap seeds and cuttings. Tea.</p>',
        when: [timed(next(today + 18, SUN), '14:00', '16:00')],
        cost: { kind: 'unsaid' },
      },
    },
  ];
}
