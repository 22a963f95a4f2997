/** What a clause says twice in two ways, or leaves out: it is asked about before a date is made of it. */
import { ymdOf } from '../../day/day';
import type { Clause, Place } from './clause-state';
import { isSpan, type SaidDate } from './calendar-dates';
import type { Offer, PhraseProblem } from './phrase-problem';

/** Something in a phrase that has to be asked, with its place. */
export interface Question extends Place {
  kind: PhraseProblem['kind'];
  offers: Offer[];
}

const rhythm = (c: Clause): boolean =>
  Boolean(c.every ?? c.yearly ?? c.rule) || c.repeats || c.nths.length + c.monthDays.length + c.workdays.length > 0;

/** The questions of one clause; `wordsOf` gives what stands at a place. */
export function contradictionsOf(clause: Clause, today: number, whole: Place): Question[] {
  const found: Question[] = [];
  const ask = (kind: Question['kind'], place: Place | undefined, offers: Offer[] = []): void => {
    const { from, to } = place ?? whole;
    found.push({ kind, from, to, offers });
  };
  const { every, weekdays, dates, times, length, perWeek } = clause;
  const singles = dates.filter((one): one is SaidDate => !isSpan(one));
  // `daily on Mondays`
  if (every?.unit === 'day' && weekdays.length === 1 && !clause.weekdaySpan) ask('two-rules', undefined);
  if (perWeek && perWeek.times !== weekdays.length) ask('other-number', perWeek);
  // `Saturday 20 March, Sundays`: dates and a rhythm that nothing joins.
  if (singles.length && !clause.extra && !clause.instead && clause.repeats && weekdays.length && !every) ask('two-rules', singles[0]);
  if (times && length && times.end !== null && endsElsewhere(clause)) ask('two-times', times);
  if (times && clause.allDay) ask('two-times', times);
  const near = singles.find(({ meaning }) => meaning.kind === 'relative');
  if (near && singles.length > 1 && !rhythm(clause)) ask('two-dates', near);
  // `today, Friday`
  else if (near && weekdays.length === 1 && !clause.repeats) ask('two-dates', near);
  const { year } = ymdOf(today);
  const years = singles.flatMap(({ meaning }) => ('year' in meaning && meaning.year !== undefined ? [meaning.year] : []));
  if (years.some((y) => y < year) && years.some((y) => y >= year))
    ask(
      'two-dates',
      singles.find(({ meaning }) => 'year' in meaning && (meaning.year ?? year) < year),
    );
  return found;
}

/** A length and an end that are not the same end. */
function endsElsewhere({ times, length, daysLater }: Clause): boolean {
  if (!times || times.end === null || length?.unit !== 'minute') return false;
  return times.end + (daysLater ?? times.endDays) * 1440 - times.start !== Math.round(length.amount);
}
