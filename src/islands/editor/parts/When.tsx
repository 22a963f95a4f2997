/** When: first date, times, repeats, limits, breaks, zone; the sentence back, and mends for what contradicts itself. */
import { useMemo, useState } from 'react';
import { parseIsoDateTime } from '@/core/day/plain-date-time';
import { MS_PER_MINUTE, MS_PER_UTC_DAY } from '@/core/day/zone';
import { zoneCity, zoneLabel, zoneOffset } from '@/core/day/zone-words';
import type { ListingContent } from '@/core/listing/content';
import { sayRecurrence, sayTotal } from '@/core/phrase/say';
import { problemsOf, type RecurrenceProblem } from '@/core/recurrence/problems';
import { withOwnFirstDates } from '@/core/recurrence/first-dates';
import { atSunOfItsDay, fromStored, type StoredRecurrence, type StoredRecurrencePart, toStored } from '@/core/recurrence/stored';
import type { EditorStart } from '@/core/listing/editor';
import { DayField } from '../../fields/DayField';
import type { Rail } from '@/core/dates/rail';
import { withRules } from '@/core/dates/rule-changes';
import { Picker } from '../Picker';
import { Phrase } from './Phrase';
import { newRecurrence, newPart, nextBreak, readRecurrence, retime } from '@/core/dates/repeat-choices';
import { PartFields } from './RecurrencePart';
import { editorWords } from '@/words/desk';

const w = editorWords.when;

interface WhenProps {
  content: ListingContent;
  setContent: (change: (before: ListingContent) => ListingContent) => void;
  site: EditorStart['site'];
  rail: Rail;
  error: string | undefined;
}

const dayOf = (start: string): string => start.slice(0, 10);

export function When({ content, setContent, site, rail, error }: WhenProps) {
  const { recurrence } = content;
  const parsed = useMemo(() => readRecurrence(recurrence), [recurrence]);
  /** has somebody said the first day, or only the form? */
  const [byHand, setByHand] = useState(true);
  const problems = useMemo(() => (parsed ? problemsOf(parsed, site.horizon) : []), [parsed, site.horizon]);
  const set: SetRecurrence = (change) => setContent((c) => (c.recurrence ? { ...c, recurrence: change(c.recurrence) } : c));
  const put = (next: StoredRecurrence | null, whenWords: string): void => {
    if (next) setByHand(true);
    setContent((c) => ({ ...(next ? (c.recurrence ? withRules(c, next) : { ...c, recurrence: next }) : c), whenWords }));
  };
  const begin = (): void => {
    setByHand(false);
    setContent((c) => ({ ...c, recurrence: newRecurrence(site.zone, site.today) }));
  };
  return (
    <section className="part pt-4 scroll-mt-16" id="when">
      <h2 className="text-[20px] border-b border-b-rule-strong pb-1.75 mb-3">{w.when()}</h2>
      {/* The words stand at the same place with and without dates, so that what is being typed goes on when the first date is found. */}
      <div className="grid gap-3">
        {error && (
          <p className="wrong" role="alert">
            {error}
          </p>
        )}
        <Phrase recurrence={recurrence} words={content.whenWords} onChange={put} site={site} />
        {recurrence ? (
          <>
            <RecurrenceParts
              recurrence={recurrence}
              set={set}
              setContent={setContent}
              site={site}
              problems={problems}
              byHand={byHand}
              setByHand={setByHand}
            />
            <AddDates recurrence={recurrence} set={set} rail={rail} today={site.today} />
            <Breaks recurrence={recurrence} set={set} />
            <Zone zone={recurrence.zone} site={site} onChange={(zone) => set((r) => atSunOfItsDay({ ...r, zone }))} />
            {problems.some((p) => p.kind === 'no-dates') && (
              <p className="note bad" role="alert">
                {w.nothingIsLeftEvery()}
              </p>
            )}
            {parsed && (
              <p className="m-0 bg-tide-wash border border-tide py-2.5 px-3.25 rounded-xs" role="status" aria-live="polite" data-readback>
                <strong>{sayRecurrence(parsed, site.style)}</strong> {sayTotal(parsed, rail.total, site.horizon)}
              </p>
            )}
          </>
        ) : (
          <div>
            <button type="button" className="button" onClick={begin}>
              {w.setADate()}
            </button>
          </div>
        )}
      </div>
    </section>
  );
}

type SetRecurrence = (change: (r: StoredRecurrence) => StoredRecurrence) => void;

interface AddDatesProps {
  recurrence: StoredRecurrence;
  set: SetRecurrence;
  rail: Rail;
  today: number;
}

/** Another date or rule after the last one, or a break where it would leave something out. */
function AddDates({ recurrence, set, rail, today }: AddDatesProps) {
  const last = recurrence.parts[recurrence.parts.length - 1];
  const start = parseIsoDateTime(last?.start ?? '');
  const addPart = (): void => {
    const part = { ...newPart((start?.day ?? today) + 1, start?.minute ?? null), length: last?.length ?? null };
    set((r) => ({ ...r, parts: [...r.parts, part] }));
  };
  const addBreak = (): void => {
    const days = rail.months.flatMap(({ dates }) => dates.flatMap((date) => (date.out ? [] : date.wall.day)));
    set((r) => ({ ...r, breaks: [...r.breaks, nextBreak(r.breaks, days, today)] }));
  };
  return (
    <div className="row">
      <button type="button" className="button small" onClick={addPart}>
        {w.addAnotherDateOr()}
      </button>
      <button type="button" className="button small" onClick={addBreak}>
        {w.addABreak()}
      </button>
    </div>
  );
}

interface RecurrencePartsProps {
  recurrence: StoredRecurrence;
  set: SetRecurrence;
  setContent: WhenProps['setContent'];
  site: EditorStart['site'];
  problems: readonly RecurrenceProblem[];
  /** has somebody said the first day, or only the form? */
  byHand: boolean;
  setByHand: (byHand: boolean) => void;
}

/** The rules and single dates, each with its controls. */
function RecurrenceParts({ recurrence, set, setContent, site, problems, byHand, setByHand }: RecurrencePartsProps) {
  const setPart = (index: number, change: (s: StoredRecurrencePart) => StoredRecurrencePart): void =>
    set((r) => ({ ...r, parts: r.parts.map((s, i) => (i === index ? change(s) : s)) }));
  return (
    <>
      {recurrence.parts.map((recurrencePart, index) => (
        <div
          key={index}
          className={`[&.recurrence-part]:border-l-[3px] [&.recurrence-part]:border-l-rule [&.recurrence-part]:pl-3.5 [&.recurrence-part]:grid [&.recurrence-part]:gap-3 [&.recurrence-part]:scroll-mt-16 [&.grid]:grid [&.grid]:gap-3 ${recurrence.parts.length > 1 ? 'recurrence-part' : 'grid'}`}
        >
          {recurrence.parts.length > 1 && (
            <div className="row justify-between">
              <strong>
                {index + 1}. {recurrencePart.rule ? w.rule() : w.singleDate()}
              </strong>
              <button type="button" className="link" onClick={() => set((r) => ({ ...r, parts: r.parts.filter((_, i) => i !== index) }))}>
                {w.remove()}
              </button>
            </div>
          )}
          <PartFields
            recurrencePart={recurrencePart}
            site={site}
            setPart={(change) => setPart(index, change)}
            setStart={(start, sun) => {
              if (dayOf(start) !== dayOf(recurrencePart.start)) setByHand(true);
              setContent((c) => retime(c, index, start, sun));
            }}
            preset={!byHand && index === 0}
            partFirst={() => set((r) => toStored(withOwnFirstDates(fromStored(r))))}
            problems={problems.filter((p) => 'recurrencePart' in p && p.recurrencePart === index)}
          />
        </div>
      ))}
    </>
  );
}

/** Spans of days without dates. */
function Breaks({ recurrence, set }: { recurrence: StoredRecurrence; set: SetRecurrence }) {
  return (
    <>
      {recurrence.breaks.map((b, i) => (
        <div className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 items-start" key={i}>
          <DayField
            label={w.breakFrom()}
            value={b.from}
            onChange={(from) => set((r) => ({ ...r, breaks: r.breaks.map((x, k) => (k === i ? { ...x, from } : x)) }))}
          />
          <DayField
            label={w.to()}
            value={b.to}
            onChange={(to) => set((r) => ({ ...r, breaks: r.breaks.map((x, k) => (k === i ? { ...x, to } : x)) }))}
            error={b.to < b.from ? w.itEndsBeforeIt() : undefined}
          />
          <button
            type="button"
            className="link self-end"
            onClick={() => set((r) => ({ ...r, breaks: r.breaks.filter((_, k) => k !== i) }))}
          >
            {w.removeTheBreak()}
          </button>
        </div>
      ))}
    </>
  );
}

function Zone({ zone, site, onChange }: { zone: string; site: EditorStart['site']; onChange: (zone: string) => void }) {
  const now = site.today * MS_PER_UTC_DAY + site.minute * MS_PER_MINUTE;
  const [open, setOpen] = useState(zone !== site.zone);
  // By city, with the part of the world and how far it is from UTC today; hundreds of them, for which a form that is only read need not wait.
  const choices = useMemo(
    () =>
      (open ? site.zones : []).map((id) => ({
        id,
        name: zoneCity(id),
        more: `${id.split('/').slice(0, -1).join(', ').replaceAll('_', ' ')} ${zoneOffset(id, now)}`.trim(),
      })),
    [open, site.zones, now],
  );
  return (
    <details open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="small quiet">
        {w.timesInTheZone({ zoneLabel: zoneLabel(zone, now), zone: zone === site.zone ? 'yes' : 'no' })}
      </summary>
      {open && (
        <div className="mt-1.5 max-w-[420px]">
          <Picker
            label={w.timeZone()}
            hint={w.typeACityTokyo()}
            choices={choices}
            chosen={[zone]}
            onChange={(ids) => onChange(ids.findLast((id) => id !== zone) ?? site.zone)}
          />
        </div>
      )}
    </details>
  );
}
