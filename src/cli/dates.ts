/** `almanac dates`: the dates of a rule, from flags or for each JSON line of standard input. Opens no database. */
import { isoDay } from '@/core/day/day';
import { datesOfSet, readDay, readStart, type WrittenSet } from '@/core/recurrence/set';
import { SECONDS_OF_DAY } from '@/core/recurrence/sub-daily';
import { type Answer, answerLines, LineError, spanAt, textAt, textsAt } from './lines';
import { CliError } from './problem';

export interface DatesFlags {
  stdin?: boolean | undefined;
  start?: string | undefined;
  rrule?: string[] | undefined;
  zone?: string | undefined;
  from?: string | undefined;
  to?: string | undefined;
  rdate?: string[] | undefined;
  exdate?: string[] | undefined;
  break?: string[] | undefined;
}

const MOST_RULES = 50;
const MOST_BREAKS = 500;

export async function dates(flags: DatesFlags): Promise<void> {
  if (flags.stdin) {
    await answerLines(ofLine);
    return;
  }
  for (const date of ofFlags(flags)) process.stdout.write(`${date}\n`);
}

function ofLine(raw: Answer): Answer {
  const start = textAt(raw, 'dtstart');
  if (start === undefined) throw new LineError('dtstart is missing');
  const window = spanAt(raw.window, 'window');
  if (!window) throw new LineError('window is missing');
  const rules = Array.isArray(raw.rrule) ? textsAt(raw, 'rrule', MOST_RULES) : [textAt(raw, 'rrule')].filter((text) => text !== undefined);
  const set: WrittenSet = {
    zone: textAt(raw, 'tzid') ?? null,
    start,
    rules,
    rdates: textsAt(raw, 'rdates'),
    exdates: textsAt(raw, 'exdates'),
    breaks: breaksOf(raw.breaks),
  };
  return { dates: datesOfSet(set, readDay(window.from, 'The window'), readDay(window.to, 'The window')) };
}

function breaksOf(value: unknown): { from: string; to: string }[] {
  if (value === undefined || value === null) return [];
  if (!Array.isArray(value) || value.length > MOST_BREAKS) throw new LineError(`breaks must be a list of at most ${MOST_BREAKS} spans`);
  return value.map((one) => spanAt(one, 'Each of breaks') ?? { from: '', to: '' });
}

const several = (values: string[] | undefined): string[] => (values ?? []).flatMap((value) => value.split(',')).filter(Boolean);

function ofFlags(flags: DatesFlags): string[] {
  if (!flags.start) throw new CliError('Say when it starts: almanac dates --start 2027-03-07T07:40 --rrule "FREQ=MONTHLY;BYDAY=1SU,3SU"');
  const { second } = readStart(flags.start, '--start');
  const first = Math.floor(second / SECONDS_OF_DAY);
  const from = flags.from ? readDay(flags.from, '--from') : first;
  const to = flags.to ? readDay(flags.to, '--to') : Math.max(first, from) + 366;
  const breaks = (flags.break ?? []).map((text) => {
    const [begin = '', end = ''] = text.split('/');
    return { from: begin, to: end || begin };
  });
  const set: WrittenSet = {
    zone: flags.zone ?? null,
    start: flags.start,
    rules: flags.rrule ?? [],
    rdates: several(flags.rdate),
    exdates: several(flags.exdate),
    breaks,
  };
  const found = datesOfSet(set, from, to);
  if (!found.length) process.stderr.write(`No dates from ${isoDay(from)} to ${isoDay(to)}.\n`);
  return found;
}
