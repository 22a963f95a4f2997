import { describe, expect, it } from 'vitest';
import { placedIn, readSitePaths } from './site-path';

describe('the path of a site', () => {
  it('is read as people type it, with those it had before', () => {
    expect(readSitePaths('')).toEqual({ now: '', former: [] });
    expect(readSitePaths('/')).toEqual({ now: '', former: [] });
    expect(readSitePaths('events/')).toEqual({ now: '/events', former: [] });
    expect(readSitePaths(' /parish/Whats-on , /calendar, / ')).toEqual({ now: '/parish/Whats-on', former: ['/calendar', ''] });
    expect(readSitePaths('/events,/events')).toEqual({ now: '/events', former: [] });
  });

  it.each(['//x', '/a//b', '/..', '/.hidden', '/a b', '/a?b', 'https://parish.example/events', '/%65', '/a/b/c/d/e/f', '/a,/b c'])(
    'is refused as %s',
    (text) => expect(readSitePaths(text)).toBeUndefined(),
  );
});

describe('an address of the host', () => {
  const paths = { now: '/events', former: ['/calendar', ''] };

  it('is one of the site below its path', () => {
    expect(placedIn(paths, '/events')).toEqual({ kind: 'own', address: '/' });
    expect(placedIn(paths, '/events/')).toEqual({ kind: 'own', address: '/' });
    expect(placedIn(paths, '/events?said=x')).toEqual({ kind: 'own', address: '/?said=x' });
    expect(placedIn(paths, '/events/month/2027-03?kinds=a/b')).toEqual({ kind: 'own', address: '/month/2027-03?kinds=a/b' });
  });

  it('leads on from where the site was', () => {
    expect(placedIn(paths, '/calendar/list')).toEqual({ kind: 'moved', address: '/list' });
    expect(placedIn(paths, '/list?words=/events')).toEqual({ kind: 'moved', address: '/list?words=/events' });
    // A name that only begins like the path is another one.
    expect(placedIn(paths, '/eventsful')).toEqual({ kind: 'moved', address: '/eventsful' });
  });

  it('is of something else where the site never was', () => {
    expect(placedIn({ now: '/events', former: [] }, '/list')).toEqual({ kind: 'elsewhere' });
    expect(placedIn({ now: '/events', former: [] }, '/Events/list')).toEqual({ kind: 'elsewhere' });
  });

  it('never becomes an address of another host, however it begins', () => {
    const moved = { now: '', former: ['/events'] };
    for (const asked of ['/events//evil.example/x', '/events/\\evil.example/x', '/events///evil.example/x', '/events/\\/evil.example/x'])
      expect(placedIn(moved, asked), asked).toEqual({ kind: 'moved', address: '/evil.example/x' });
    expect(placedIn({ now: '/events', former: [] }, '/events//evil.example')).toEqual({ kind: 'own', address: '/evil.example' });
  });

  it('goes by the longest path where the site moved into or out of one', () => {
    expect(placedIn({ now: '', former: ['/events'] }, '/events/list')).toEqual({ kind: 'moved', address: '/list' });
    expect(placedIn({ now: '/a/b', former: ['/a'] }, '/a/b/list')).toEqual({ kind: 'own', address: '/list' });
    expect(placedIn({ now: '/a', former: ['/a/b'] }, '/a/b/list')).toEqual({ kind: 'moved', address: '/list' });
  });
});
