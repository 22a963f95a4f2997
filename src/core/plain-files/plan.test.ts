import { describe, expect, it } from 'vitest';
import { isoDay, parseIsoDay } from '@/core/day/day';
import { between, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { VIEW_NAMES, viewLast, viewPath } from '../views/views';
import { linkTo, wholeLinkTo } from './links';
import { type CopyPlan, targetOf } from './plan';

const day = (text: string): number => parseIsoDay(text) as number;
const PLAN: CopyPlan = {
  today: day('2027-03-17'),
  firstWeekday: 1,
  views: VIEW_NAMES,
  languages: ['fr'],
  span: { from: day('2027-02-01'), to: day('2028-03-31') },
};
const file = (address: string, plan = PLAN): string => {
  const target = targetOf(address, plan);
  return typeof target === 'string' ? target : target.file;
};

describe('where links lead in a copy', () => {
  it.each([
    ['/', 'index.html'],
    ['/fr', 'fr/index.html'],
    ['/month/2027-03', 'month/2027-03/index.html'],
    ['/fr/month/2027-03/', 'fr/month/2027-03/index.html'],
    ['/list?kind=music-dance', 'list/kind=music-dance/index.html'],
    ['/list/2027-03-17?tag=in-the-dark', 'list/2027-03-17/tag=in-the-dark/index.html'],
    ['/what/harbour-choir', 'what/harbour-choir/index.html'],
    ['/what/harbour-choir/2027-03-23', 'what/harbour-choir/2027-03-23/index.html'],
    ['/what/harbour-choir/2027-03-23/date.ics', 'what/harbour-choir/2027-03-23/date.ics'],
    ['/what/harbour-choir/dates.ics', 'what/harbour-choir/dates.ics'],
    ['/what/harbour-choir?from=2027-06', 'what/harbour-choir/from=2027-06/index.html'],
    ['/feed.ics', 'feed.ics'],
    ['/feed.ics?kind=music-dance', 'feed/kind=music-dance.ics'],
    ['/fr/dates.csv?venue=st-bride', 'fr/dates/venue=st-bride.csv'],
    ['/at/st-bride?page=2', 'at/st-bride/page=2/index.html'],
    ['/year/2027?as=titles', 'year/2027/as=titles/index.html'],
    ['/picture/0f3a/1/wide-1024.jpg', 'picture/0f3a/1/wide-1024.jpg'],
  ])('%s is %s', (address, at) => expect(file(address)).toBe(at));

  it('leads to another file that shows the same', () => {
    expect(file('/month/2027-03?day=2027-03-17')).toBe('day/2027-03-17/index.html');
    expect(file('/month/2027-03?day=2027-03-17', { ...PLAN, views: ['month'] })).toBe('month/2027-03/index.html');
    expect(file('/day/2027-03-17?as=list')).toBe('list/2027-03-17/index.html');
    expect(file('/what/harbour-choir/2027-03-23?from=2027-06')).toBe('what/harbour-choir/from=2027-06/index.html');
    // A date before the copy's days has its place on its listing's page; a week by a day is that week.
    expect(file('/what/harbour-choir/2026-11-03')).toBe('what/harbour-choir/index.html');
    expect(file('/what/harbour-choir/2028-11-07T1900')).toBe('what/harbour-choir/index.html');
    expect(file('/week/2027-03-17')).toBe('week/2027-W11/index.html');
  });

  it.each([
    '/add',
    '/desk',
    '/go',
    '/data',
    '/api/open/v1/dates',
    '/what/harbour-choir/tell',
    '/list?words=choir',
    '/list?kind=a&tag=b',
    '/month/2027-03?kind=music-dance',
    '/feed.ics?kind=a&kind=b',
    '/list?kind=../../etc',
    '/list?kind=%00',
    '/nowhere',
    '/month/2027-13',
    '/what/x/2027-03-17/date.ics/more',
    '/picture/../../secret',
    '/at/st-bride?page=two',
    '/fr/add',
    // What stands in a link that somebody wrote becomes no other file's name, and no error.
    '/what/..%2f..%2f..%2ftmp%2fx',
    '/fr/what/..%2f..',
    '/what/x/..%2f..%2fy/date.ics',
    '/what/a%5C..%5Cb',
    '/what/a%00b',
    '/what/%ff',
    '/at/.hidden',
  ])('%s needs the site’s own server', (address) => expect(file(address)).toBe('server'));

  it('reaches no further than its days, and every view that touches one of them', () => {
    const r = random(seedOf());
    for (let i = 0; i < rounds(400); i++) {
      const view = pick(r, VIEW_NAMES);
      const path = viewPath(view, between(r, PLAN.span.from - 400, PLAN.span.to + 400), 1);
      const target = targetOf(path, PLAN);
      // The slow way: is any day that this page shows among the copy's?
      const shown: number[] = [];
      for (let d = PLAN.span.from - 800; d <= PLAN.span.to + 800; d++) {
        const starts = day(isoDay(d));
        if (view === 'half-year' ? false : viewPath(view, starts, 1) === path) shown.push(d);
      }
      if (view === 'half-year') {
        const first = day(`${path.split('/')[2]}-01`);
        for (let d = first; d <= viewLast(view, first, 1); d++) shown.push(d);
        expect(shown.length).toBeGreaterThan(180);
      }
      const touches = shown.some((d) => d >= PLAN.span.from && d <= PLAN.span.to);
      expect(target === 'beyond', path).toBe(!touches);
    }
  });

  it('gives no two addresses one file, and reads its own address as the same file', () => {
    const found = new Map<string, string>();
    const r = random(seedOf());
    const parts = ['', '?kind=a', '?tag=a', '?page=2', '?from=2027-05', '?as=titles', '?days=work', '?venue=a'];
    const paths = [
      '/',
      '/list',
      '/list/2027-03-17',
      '/week/2027-W11',
      '/year/2027',
      '/what/a',
      '/what/a/2027-03-17',
      '/at/a',
      '/feed.ics',
      '/dates.csv',
      '/at',
      '/tags',
    ];
    for (let i = 0; i < 600; i++) {
      const target = targetOf(pick(r, ['', '/fr']) + pick(r, paths) + pick(r, parts), PLAN);
      if (typeof target === 'string') continue;
      expect(found.get(target.file) ?? target.address).toBe(target.address);
      found.set(target.file, target.address);
      expect(targetOf(target.address, PLAN)).toEqual(target);
    }
    expect(found.size).toBeGreaterThan(25);
  });
});

describe('links between files', () => {
  it('go from file to file where no address is known', () => {
    expect(linkTo('index.html', 'month/2027-03/index.html', {})).toBe('./month/2027-03/index.html');
    expect(linkTo('month/2027-03/index.html', 'index.html', {})).toBe('../../index.html');
    expect(linkTo('what/a/index.html', 'what/a/2027-03-17/index.html', {})).toBe('./2027-03-17/index.html');
    expect(linkTo('what/a/index.html', 'what/a/index.html', {})).toBe('./index.html');
    expect(linkTo('fr/list/index.html', 'list/kind=café/index.html', {})).toBe('../../list/kind=caf%C3%A9/index.html');
  });

  it('lead, as a browser resolves them, to the file, from anywhere', () => {
    const r = random(seedOf());
    const some = () => ['index.html', 'a/index.html', 'a/b/index.html', 'a/b.ics', 'fr/a/kind=x/index.html', 'picture/1/2.jpg'];
    for (let i = 0; i < 200; i++) {
      const [from, to] = [pick(r, some()), pick(r, some())];
      expect(new URL(linkTo(from, to, {}), `http://parish.example/deep/${from}`).pathname).toBe(`/deep/${to}`);
      const url = 'https://parish.example/events';
      const lead = new URL(linkTo(from, to, { url }), `https://parish.example/events/${from}`).href;
      expect(lead).toBe(wholeLinkTo(to, url));
      expect(lead.replace(/\/$/, '/index.html')).toBe(`${url}/${to}`);
    }
  });
});
