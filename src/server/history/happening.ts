/**
 * What happened to something, as it is stored: a code with its parameters, never a sentence. Which codes there are, and what each takes, are the
 * catalogue's messages (`words/<language>/history.json`, and `steps` of `sending.json` for what happens to a submission); said when it is read.
 */
import { instantToDateTime } from '@/core/day/zone';
import { sayWhen, type Style } from '@/core/phrase/format';
import type { Language } from '@/core/phrase/language';
import { HISTORY_WORDS, type HistoryWords } from '@/words/history';
import { SENDING_WORDS, type SendingWords } from '@/words/sending';

/** The format of what is kept. */
export const HAPPENING_FORMAT = 1;

type ParametersOf<Message> = Message extends (d: infer D) => string ? D : unknown;
type Messages = Omit<HistoryWords, 'ended'>;
type Step = keyof SendingWords['steps'];

/** A code with what it takes. Moments (`out`, `down`) are ISO instants; `words` is what was written before there were codes. */
export type Happening = { [Code in keyof Messages]: { code: Code } & ParametersOf<Messages[Code]> }[keyof Messages] | { code: Step };

/** As it is kept; `ended`: how many dates of the listing are no more. */
export type StoredHappening = Happening & { format: typeof HAPPENING_FORMAT; ended?: number };

/** The form in which it is kept. */
export const toKeep = (happening: Happening, ended = 0): StoredHappening => ({
  format: HAPPENING_FORMAT,
  ...happening,
  ...(ended ? { ended } : {}),
});

/** All codes that there are. */
export const HAPPENING_CODES = [
  ...new Set([...Object.keys(HISTORY_WORDS.en).filter((code) => code !== 'ended'), ...Object.keys(SENDING_WORDS.en.steps)]),
] as Happening['code'][];

const MOMENTS = ['out', 'down'];

/** A moment by a zone's clock. */
export const sayMoment = (at: Date, style: Style, zone: string): string => sayWhen(instantToDateTime(zone, at.getTime()), null, style);

/** What happened, in the language and style of whoever reads it, times by a zone's clock: "published changes; 1 date ended". */
export function sayHappening({ code, format: _format, ended, ...parameters }: StoredHappening, style: Style, zone: string): string {
  const language = style.language ?? 'en';
  const words = HISTORY_WORDS[language];
  const said = Object.fromEntries(
    Object.entries(parameters).map(([name, value]) => [
      name,
      MOMENTS.includes(name) ? sayMoment(new Date(String(value)), style, zone) : value,
    ]),
  );
  const message = (Object.hasOwn(words, code) ? words[code as keyof HistoryWords] : undefined) as ((d: object) => string) | undefined;
  return (message?.(said) ?? sayStep({ code }, language)) + (ended ? `; ${words.ended({ n: ended })}` : '');
}

/** What happened to a submission, as its sender reads it: "You sent it". */
export function sayStep({ code }: Pick<StoredHappening, 'code'>, language: Language): string {
  const { steps } = SENDING_WORDS[language];
  return Object.hasOwn(steps, code) ? steps[code as Step]() : code;
}
