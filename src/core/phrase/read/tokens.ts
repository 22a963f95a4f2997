/** A phrase in tokens: words, numbers, times of day, dates in figures, marks. Positions are those of the phrase as typed. */
import { dateExists, dayOf } from '../../day/day';
import { MONTH_WORDS } from './vocabulary';

interface Place {
  /** as typed */
  text: string;
  /** where it stands in the phrase, [from, to) */
  from: number;
  to: number;
}

/** The half of the day that is said with a time. */
export type Half = 'am' | 'pm';

/** A word, number or sign of a phrase, with its place. */
export type Token = Place &
  (
    | { kind: 'word'; word: string }
    | { kind: 'number'; value: number; ordinal: boolean; zero: boolean }
    /** a time of day with minutes or a half of the day; `hours` = written 21h, which can also say how long */
    | { kind: 'time'; minute: number; half: Half | null; zero: boolean; hours: boolean }
    /** written as a time of day, but no clock shows it: 25:00, 13pm */
    | { kind: 'no-time' }
    /** `offset`: minutes east of UTC, where the zone is written with it */
    | { kind: 'iso'; day: number | undefined; minute: number | null; offset: number | undefined }
    /** 3/4 or 3/4/2027: which is the month is not said */
    | { kind: 'slash'; first: number; second: number; year: number | undefined }
    /** 3.4. or 3.4.2027: the day comes first wherever points are used */
    | { kind: 'dotted'; day: number; month: number; year: number | undefined }
    | { kind: 'rule'; rule: string }
    | { kind: 'mark'; mark: string }
  );

const HALF = '(?:\\s*(a\\.?m\\.?|p\\.?m\\.?)(?![a-z]))';
type Make = (match: RegExpExecArray) => DistributiveOmit<Token, keyof Place> | undefined;
type DistributiveOmit<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;

const halfOf = (text: string | undefined): Half | null => (text ? (text.toLowerCase().startsWith('a') ? 'am' : 'pm') : null);

/** `7` and `pm` as minutes; undefined when no clock shows that. */
export function minuteOf(hour: number, minute: number, half: Half | null): number | undefined {
  if (minute > 59) return undefined;
  if (half === null) return hour < 24 ? hour * 60 + minute : hour === 24 && minute === 0 ? 0 : undefined;
  if (hour < 1 || hour > 12) return undefined;
  return ((hour % 12) + (half === 'pm' ? 12 : 0)) * 60 + minute;
}

function clock(hour: string, minute: string, half: string | undefined, hours = false): DistributiveOmit<Token, keyof Place> | undefined {
  // `19:30 pm` says twice what is so.
  const at = minuteOf(Number(hour), Number(minute), Number(hour) > 12 && minute !== '0' && halfOf(half) === 'pm' ? null : halfOf(half));
  if (at === undefined) return hours ? undefined : { kind: 'no-time' };
  return { kind: 'time', minute: at, half: halfOf(half), zero: hour.startsWith('0') || Number(hour) > 12, hours };
}

const year = (text: string | undefined): number | undefined =>
  text === undefined ? undefined : text.length === 2 ? 2000 + Number(text) : Number(text);

/** `Z`, `+02:00`, `-0330` in minutes. */
function offsetOf(zone: string): number {
  if (/^z$/i.test(zone)) return 0;
  const minutes = Number(zone.slice(1, 3)) * 60 + Number(zone.slice(-2));
  return zone.startsWith('-') ? -minutes : minutes;
}

/** In order: the first that fits where a token begins is taken. */
const FORMS: [RegExp, Make][] = [
  [/(?:rrule:)?freq=[a-z0-9=;,+:-]*[a-z0-9]/iy, ([text]) => ({ kind: 'rule', rule: text.replace(/^rrule:/i, '') })],
  [
    /(\d{4})-(\d{2})-(\d{2})(?:[t ](\d{2}):(\d{2})(?::\d{2})?(z(?![a-z])|[+-]\d{2}:?\d{2}(?!\d))|t(?=\d{2}:))?(?!\d{3})/iy,
    ([, y, m, d, hour, minute, zone]) => ({
      kind: 'iso',
      day: dateExists(Number(y), Number(m), Number(d)) ? dayOf(Number(y), Number(m), Number(d)) : undefined,
      // A time without a zone is a token of its own, which may have an end.
      minute: zone === undefined ? null : (minuteOf(Number(hour), Number(minute), null) ?? null),
      offset: zone === undefined ? undefined : offsetOf(zone),
    }),
  ],
  [
    /(\d{1,2})[-‐‑–](\p{L}{3,9})[-‐‑–](\d{4})(?!\d)/iuy,
    ([, d, name = '', y]) => {
      const month = MONTH_WORDS.get(name.toLowerCase());
      return month === undefined ? undefined : { kind: 'dotted', day: Number(d), month, year: Number(y) };
    },
  ],
  [
    /(\d{1,2})\/(\d{1,2})(?:\/(\d{4}|\d{2}))?(?![\d/])/y,
    ([, a, b, y]) => ({ kind: 'slash', first: Number(a), second: Number(b), year: year(y) }),
  ],
  [
    /(\d{1,2})\.(\d{1,2})\.(\d{4}|\d{2}(?!\d))?(?![\d])/y,
    ([, d, m, y]) =>
      Number(m) >= 1 && Number(m) <= 12 && Number(d) >= 1 && Number(d) <= 31
        ? { kind: 'dotted', day: Number(d), month: Number(m), year: year(y) }
        : undefined,
  ],
  [
    new RegExp(`(\\d{1,2})[:.](\\d{2})(?::00)?(?!\\d)${HALF}?`, 'iy'),
    ([text, hour = '', minute = '', half]) =>
      // `2.75` is a number.
      Number(minute) > 59 && !half && !text.includes(':') ? undefined : clock(hour, minute, half),
  ],
  [new RegExp(`(\\d{1,2})${HALF}`, 'iy'), ([, hour = '', half]) => clock(hour, '0', half)],
  [/(\d{1,2})h(\d{2})?(?![a-z\d])/iy, ([, hour = '', minute = '0']) => clock(hour, minute, undefined, true)],
  [/(0\d|1\d|2[0-3])([0-5]\d)(?:\s*h(?:rs?|ours)?)(?![a-z\d])/iy, ([, hour = '', minute = '']) => clock(hour, minute, undefined)],
  [/(0\d)([0-5]\d)(?!\d)/y, ([, hour = '', minute = '']) => clock(hour, minute, undefined)],
  [
    /(\d+)(st|nd|rd|th)(?![a-z])/iy,
    ([, digits = '']) => (digits.length > 6 ? undefined : { kind: 'number', value: Number(digits), ordinal: true, zero: false }),
  ],
  [
    /(\d*)\s?([½¼¾])/y,
    ([, whole = '', part = '½']) => ({
      kind: 'number',
      value: Number(whole) + { '¼': 0.25, '½': 0.5, '¾': 0.75 }[part as '¼' | '½' | '¾'],
      ordinal: false,
      zero: false,
    }),
  ],
  // A letter among the figures, 2O27: no number.
  [/\d+[oli](?=[\doli])[\doli]*(?![a-z])/iy, ([text]) => ({ kind: 'word', word: text.toLowerCase() })],
  [
    /(\d+(?:\.\d+)?)(?![\d])/y,
    ([, digits = '']) =>
      digits.length > 6 ? undefined : { kind: 'number', value: Number(digits), ordinal: false, zero: /^0\d/.test(digits) },
  ],
  [/[\p{L}][\p{L}'’]*\.?/uy, ([text]) => ({ kind: 'word', word: text.toLowerCase().replaceAll('’', "'").replace(/\.$/, '') })],
  [/[-‐‑–—−]+/y, () => ({ kind: 'mark', mark: '-' })],
  [/\S/uy, ([text]) => ({ kind: 'mark', mark: text })],
];

/** The tokens of a phrase. Everything that is not a space belongs to one, so nothing typed is passed over. */
export function tokensOf(phrase: string): Token[] {
  const tokens: Token[] = [];
  for (let at = 0; at < phrase.length; ) {
    if (/\s/.test(phrase[at] ?? '')) {
      at++;
      continue;
    }
    const token = tokenAt(phrase, at);
    tokens.push(token);
    at = token.to;
  }
  return tokens;
}

function tokenAt(phrase: string, at: number): Token {
  for (const [form, make] of FORMS) {
    form.lastIndex = at;
    const match = form.exec(phrase);
    const made = match && make(match);
    if (match && made) return { ...made, text: match[0], from: at, to: at + match[0].length } as Token;
  }
  const character = String.fromCodePoint(phrase.codePointAt(at) ?? 32);
  return { kind: 'mark', mark: character, text: character, from: at, to: at + character.length };
}
