import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { FORMER_CONTENT } from '../../../tests/support/former-content';
import type { ListingContent } from '@/core/listing/content';
import { type ContentField, emptyContent, FIELD_NAMES, fieldOf as declared } from '@/core/listing/fields';
import { Problem, read } from '../problem';
import { cleanHtml } from './html';
import { contentInput } from './input';

const good = (): ListingContent => ({
  ...emptyContent(),
  title: '  Low-tide   Walk ',
  recurrence: {
    format: 3,
    zone: 'America/Halifax',
    parts: [{ start: '2027-03-07T07:40', length: { days: 0, minute: 580 }, rule: null, limit: { kind: 'open' } }],
    exdates: [],
    breaks: [],
  },
});
const fieldOf = (raw: unknown): string | undefined => {
  try {
    read(contentInput, raw);
  } catch (error) {
    return (error as Problem).fields[0]?.field;
  }
  return undefined;
};
const withStart = (start: string): unknown => {
  const content = good();
  const [recurrencePart] = content.recurrence?.parts ?? [];
  return { ...content, recurrence: { ...content.recurrence, parts: [{ ...recurrencePart, start }] } };
};

describe('a listing that comes in', () => {
  it('is taken, its blanks tidied', () => expect(read(contentInput, good()).title).toBe('Low-tide Walk'));
  const cases: [string, unknown, string][] = [
    ['31 February', withStart('2027-02-31T10:00'), 'recurrence.parts.0.start'],
    ['25 o’clock', withStart('2027-03-07T25:00'), 'recurrence.parts.0.start'],
    ['an unknown zone', { ...good(), recurrence: { ...good().recurrence, zone: 'Kittiwick/Amble' } }, 'recurrence.zone'],
    ['a title of 200,000 characters', { ...good(), title: 'x'.repeat(200_000) }, 'title'],
    ['a text over the limit', { ...good(), text: 'x'.repeat(60_001) }, 'text'],
    [
      'a thousand categories',
      { ...good(), categoryIds: Array.from({ length: 1000 }, () => '01900000-0000-7000-8000-000000000000') },
      'categoryIds',
    ],
    ['an id that is none', { ...good(), venueIds: ['../../etc'] }, 'venueIds.0'],
    [
      'a rule with every 0 weeks',
      {
        ...good(),
        recurrence: {
          ...good().recurrence,
          parts: [
            {
              start: '2027-03-07',
              length: null,
              rule: { freq: 'weekly', interval: 0, byMonth: [], byMonthDay: [], byDay: [], weekStart: 0 },
              limit: { kind: 'open' },
            },
          ],
        },
      },
      'recurrence.parts.0.rule.interval',
    ],
    ['a currency of four letters', { ...good(), cost: { kind: 'amount', amount: '8', currency: 'CADX' } }, 'cost.currency'],
    ['a format of the future', { ...good(), format: 6 }, 'format'],
  ];
  for (const [name, raw, field] of cases) it(`refuses ${name} at its field`, () => expect(fieldOf(raw)).toBe(field));
  it('takes a content of format 1, as it was stored before there were tags and galleries', () => {
    const { expected: _e, tagIds: _t, galleryIds: _g, onTopUntil: _o, whenWords: _w, ...old } = FORMER_CONTENT;
    expect(contentInput.parse({ ...old, format: 1, recurrence: { ...old.recurrence, format: 1 } })).toMatchObject({
      format: 5,
      whenWords: '',
      callAddress: '',
      callKind: 'more',
      expected: null,
      tagIds: [],
      galleryIds: [],
      onTopUntil: null,
      recurrence: { format: 3, parts: FORMER_CONTENT.recurrence.stretches },
    });
  });
  it('takes a content of format 3 under the names of today, with nothing of the former left', () => {
    const content = contentInput.parse(FORMER_CONTENT);
    expect(content).toMatchObject({
      format: 5,
      eventStatus: 'rescheduled',
      callAddress: '',
      eventStatusNote: 'Later this time',
      changes: [{ eventStatus: 'cancelled', note: 'Flooded' }],
      recurrence: { format: 3, exdates: ['2027-04-06T19:00'], breaks: FORMER_CONTENT.recurrence.breaks },
    });
    expect(
      Object.keys({ ...content, ...content.recurrence, ...content.changes[0] }).filter((key) => /standing|stretch|leftOut/.test(key)),
    ).toEqual([]);
  });
  it('takes as much in each field as it declares, and no more', () => {
    const bounded = FIELD_NAMES.flatMap((name): [name: ContentField, most: unknown, more: unknown][] => {
      const { type } = declared(name);
      if (type.is === 'line' || type.is === 'html') return [[name, 'a'.repeat(type.most), 'a'.repeat(type.most + 1)] as const];
      if (type.is === 'web')
        return [[name, `https://a.example/${'a'.repeat(type.most - 18)}`, `https://a.example/${'a'.repeat(type.most)}`] as const];
      if (type.is === 'number') return [[name, type.most, type.most + 1] as const];
      const ids = (n: number): string[] => Array.from({ length: n }, () => randomUUID());
      return type.is === 'ids' ? [[name, ids(type.most), ids(type.most + 1)] as const] : [];
    });
    expect(bounded.length).toBeGreaterThan(12);
    for (const [name, most, more] of bounded) {
      expect(read(contentInput, { ...good(), [name]: most })[name]).toEqual(most);
      expect(fieldOf({ ...good(), [name]: more }), name).toBe(name);
    }
  });
  it('refuses what is no object', () => {
    for (const raw of [null, 3, 'x', [], { __proto__: { title: 'x' } }]) expect(() => read(contentInput, raw)).toThrow(Problem);
  });
  it('never repeats a value in its errors', () => {
    try {
      read(contentInput, { ...good(), contact: { name: 'Ada', phone: 'x'.repeat(99), mail: 'secret@shore.example' } });
    } catch (error) {
      expect(JSON.stringify((error as Problem).fields)).not.toContain('secret');
      return;
    }
    throw new Error('it was taken');
  });
});

describe('HTML that people write', () => {
  const cases: [string, string, string][] = [
    ['a script', '<p>Hi</p><script>alert(1)</script>', '<p>Hi</p>'],
    ['a handler', '<p onclick="x()">Hi</p>', '<p>Hi</p>'],
    ['a script in a link', '<a href="javascript:alert(1)">go</a>', '<a rel="nofollow noopener">go</a>'],
    ['a script in a link, disguised', '<a href="java\nscript:alert(1)">go</a>', '<a rel="nofollow noopener">go</a>'],
    ['a picture from elsewhere', '<p>Hi <img src="https://spy.example/a.gif"></p>', '<p>Hi </p>'],
    ['a picture in the data', '<img src="data:image/svg+xml,<svg/>">', ''],
    ['a frame', '<iframe src="https://x.example"></iframe>', ''],
    ['a style', '<p style="position:fixed">Hi</p><style>*{}</style>', '<p>Hi</p>'],
    [
      'a link that is all right',
      '<a href="https://shore.example">go</a>',
      '<a href="https://shore.example" rel="nofollow noopener">go</a>',
    ],
  ];
  for (const [name, html, clean] of cases) it(`${name} is cleaned`, () => expect(cleanHtml(html)).toBe(clean));
  it('keeps a picture of this site', () => {
    const html = '<img src="/picture/01900000-0000-7000-8000-000000000000/640" alt="A skiff" />';
    expect(cleanHtml(html)).toBe(html);
  });
  it('keeps how a picture stands and where it leads, and nothing that could harm', () => {
    const src = 'src="/picture/01900000-0000-7000-8000-000000000000/640" alt="A skiff"';
    const good = `<img ${src} data-side="left" data-width="third" data-link="https://shore.example" />`;
    expect(cleanHtml(good)).toBe(good);
    expect(cleanHtml(`<img ${src} data-side="up" data-width="9" data-link="javascript:alert(1)" onclick="x" style="x">`)).toBe(
      `<img ${src} />`,
    );
  });
});
