/** Listings in one line each: the lines, what was understood of them in chips, and a row for each to correct. */
import { siteAddress, openPage } from '@/client/site-root';
import { useEffect, useMemo, useRef, useState } from 'react';
import { ask, sayFailure, send } from '@/client/api';
import { PASTED_LINES } from '@/client/pasted';
import { draftOf } from '@/core/entry/drafts';
import { type Known, LONGEST_LINE, type LineSetting } from '@/core/entry/read-line';
import { sayCost } from '@/core/listing/content';
import { sayRecurrence } from '@/core/phrase/say';
import type { ValidationNote } from '@/core/validation/note';
import { MakeDialog } from '../editor/MakeDialog';
import { Questions } from '../fields/Questions';
import { type Correction, type EntryRow, keyOf, rowsOf } from './entry-rows';
import { entryWords } from '@/words/desk';
import { sayNote } from '@/words/proof';

const w = entryWords.entry;

interface EntryStart {
  text: string;
  setting: LineSetting;
  /** may they make a venue? */
  mayMake: boolean;
}

/** So many rows are compared with what is there already. */
const COMPARED = 20;

/** Several lines that were pasted into the header's one-line field, handed over once. */
function pastedLines(): string {
  const text = sessionStorage.getItem(PASTED_LINES) ?? '';
  sessionStorage.removeItem(PASTED_LINES);
  return text;
}

export default function Entry({ start }: { start: EntryStart }) {
  const [text, setText] = useState(() => start.text || pastedLines());
  const [fixes, setFixes] = useState<ReadonlyMap<string, Correction>>(new Map());
  const [wrong, setWrong] = useState('');
  const [busy, setBusy] = useState(false);
  const [made, setMade] = useState<{ id: string; title: string }[]>([]);
  const [venues, setVenues] = useState(start.setting.venues);
  const [making, setMaking] = useState<{ place: string; key: string } | null>(null);
  const setting = useMemo(() => ({ ...start.setting, venues }), [start.setting, venues]);
  const rows = useMemo(() => rowsOf(text, fixes, setting), [text, fixes, setting]);
  const alike = useLookalikes(rows);
  const chosen = rows.filter((row) => row.make && row.title);
  const fix = (key: string, part: Correction): void => setFixes((before) => new Map(before).set(key, { ...before.get(key), ...part }));
  const make = async (): Promise<void> => {
    setBusy(true);
    const outcome = await send<{ made: { id: string; title: string }[] }>('POST', '/api/v1/entry', { contents: chosen.map(draftOf) });
    setBusy(false);
    if (outcome.kind !== 'done') return setWrong(sayFailure(outcome));
    const [only, ...more] = outcome.value.made;
    if (only && !more.length) return openPage(`/desk/listings/${only.id}`);
    setWrong('');
    setText('');
    setFixes(new Map());
    setMade(outcome.value.made);
  };
  return (
    <section className="grid gap-3.5" aria-label={w.lines()}>
      <LinesField text={text} onText={setText} onMake={chosen.length ? () => void make() : undefined} />
      {wrong && (
        <p className="note bad" role="alert">
          {wrong}
        </p>
      )}
      {made.length > 0 && <Made made={made} />}
      {rows.map((row, i) => (
        <Row
          key={keyOf(row, i)}
          row={row}
          setting={setting}
          alike={alike.get(row.line)}
          onFix={(part) => fix(keyOf(row, i), part)}
          onLine={(line) => setText((before) => before.replace(row.line, () => line))}
          onMake={start.mayMake ? () => setMaking({ place: row.place, key: keyOf(row, i) }) : undefined}
        />
      ))}
      {text.trim() !== '' && rows.length === 0 && (
        <p className="empty bg-sheet py-8 px-7 border-b-2 border-b-rule-strong">{w.nothingToMakeA()}</p>
      )}
      {rows.length > 0 && (
        <div className="row">
          <button type="button" className="button main" disabled={!chosen.length || busy} onClick={() => void make()}>
            {busy ? w.oneMoment() : w.makeDraft({ n: chosen.length })}
          </button>
          <span className="quiet small">{rows.length - chosen.length > 0 && w.leftOut({ n: rows.length - chosen.length })}</span>
        </div>
      )}
      {making && (
        <MakeDialog
          kind="venues"
          name={making.place}
          known={venues.map((venue) => ({ ...venue, more: '' }))}
          onClose={() => setMaking(null)}
          onTake={(venueId) => {
            fix(making.key, { venueId });
            setMaking(null);
          }}
          onMade={({ id, name }) => {
            // Other lines that name it find it now by themselves.
            setVenues([...venues, { id, name }]);
            fix(making.key, { venueId: id });
            setMaking(null);
          }}
        />
      )}
    </section>
  );
}

/** The lines as they are typed or pasted; Ctrl+Enter makes what is chosen. */
function LinesField({ text, onText, onMake }: { text: string; onText: (text: string) => void; onMake: (() => void) | undefined }) {
  return (
    <div className="field">
      <label htmlFor="lines">{w.aLineForEach()}</label>
      <textarea
        id="lines"
        className="box"
        rows={Math.min(14, Math.max(2, text.split('\n').length + 1))}
        value={text}
        // biome-ignore lint/a11y/noAutofocus: this page is this field
        autoFocus
        placeholder={w.choirPracticeTue7pm()}
        onChange={(e) => onText(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && (e.ctrlKey || e.metaKey) && onMake) {
            e.preventDefault();
            onMake();
          }
        }}
      />
      <span className="hint">{w.aDayAloneHeads()}</span>
    </div>
  );
}

function Made({ made }: { made: readonly { id: string; title: string }[] }) {
  return (
    <div className="note good" role="status">
      {w.draftMade({ n: made.length })}{' '}
      {made.map(({ id, title }, i) => (
        <span key={id}>
          {i > 0 && ', '}
          <a href={siteAddress(`/desk/listings/${id}`)}>{title}</a>
        </span>
      ))}
      .
    </div>
  );
}

function Row({
  row,
  setting,
  alike,
  onFix,
  onLine,
  onMake,
}: {
  row: EntryRow;
  setting: LineSetting;
  alike: string | undefined;
  onFix: (part: Correction) => void;
  /** other words for the line itself */
  onLine: (line: string) => void;
  /** makes a venue of the place that the line names */
  onMake: (() => void) | undefined;
}) {
  const name = row.title || row.line.slice(0, 40);
  return (
    <fieldset
      className="entry-row border-t border-t-rule pt-2.5 grid grid-cols-[26px_minmax(0,1fr)] gap-2.5 min-w-0 [&:not([data-make])]:opacity-75"
      aria-label={name}
      data-make={row.make || undefined}
    >
      <label className="check">
        <input type="checkbox" checked={row.make} onChange={(e) => onFix({ make: e.target.checked })} aria-label={w.make({ name })} />
      </label>
      <div>
        <Parts row={row} />
        <div className="grid grid-cols-[repeat(auto-fit,minmax(170px,1fr))] gap-y-2 gap-x-3">
          <Field label={w.title()} value={row.title} onChange={(title) => onFix({ title })} most={160} />
          <Field label={w.when()} value={row.when} onChange={(when) => onFix({ when })} most={LONGEST_LINE} />
          <Choice label={w.venue()} value={row.venueId} known={setting.venues} onChange={(venueId) => onFix({ venueId })} />
          <Choice
            label={w.organizer()}
            value={row.organizerId}
            known={setting.organizers}
            onChange={(organizerId) => onFix({ organizerId })}
          />
          <Choice label={w.category()} value={row.categoryId} known={setting.categories} onChange={(categoryId) => onFix({ categoryId })} />
        </div>
        <p className="readback-line mt-2" role="status">
          {row.recurrence ? (
            sayRecurrence(row.recurrence, setting.style)
          ) : row.unclear ? (
            <span className="amber">{w.whenIsNotClear()}</span>
          ) : (
            <span className="quiet">{w.noDate()}</span>
          )}
          {row.cost.kind !== 'unsaid' && ` ${sayCost(row.cost).replace(/^./, (c) => c.toUpperCase())}.`}
        </p>
        {row.reading ? (
          <Questions reading={row.reading} text={row.when} onText={(when) => onFix({ when })} />
        ) : (
          <Questions reading={row} text={row.line} onText={onLine} />
        )}
        {row.cut && <p className="amber small">{w.onlyTheFirstCharacters({ longestLine: LONGEST_LINE })}</p>}
        {row.place && !row.venueId && (
          <p className="small">
            {w.isNoVenueYet({ place: row.place })}{' '}
            {onMake && (
              <button type="button" className="link" onClick={onMake}>
                {w.makeItAVenue()}
              </button>
            )}
          </p>
        )}
        {alike && <p className="amber small">{alike}</p>}
      </div>
    </fieldset>
  );
}

/** What was taken for what in the line. */
function Parts({ row }: { row: EntryRow }) {
  return (
    <p className="chips-line mb-2 flex flex-wrap gap-1.5">
      {row.parts.map((part) => (
        <span
          key={`${part.from}`}
          className={`border-b-2 border-b-rule px-0.5 [&.of-title]:border-ink [&.of-title]:font-bold [&.of-when]:border-tide [&.of-place]:[border-bottom-style:dashed] [&.of-place]:border-amber [&.of-venue]:border-amber [&.of-organizer]:border-amber part of-${part.kind}`}
        >
          <span className="quiet in-[.of-title]:font-normal">{part.kind}</span> {part.text}
        </span>
      ))}
      {row.cascaded && <span className="part of-when quiet border-tide border-b-2 border-b-rule px-0.5">{w.dayFromTheLine()}</span>}
      {row.placeCascaded && (
        <span className="part of-venue quiet border-amber border-b-2 border-b-rule px-0.5">{w.placeFromTheLine()}</span>
      )}
    </p>
  );
}

function Field({ label, value, most, onChange }: { label: string; value: string; most: number; onChange: (value: string) => void }) {
  return (
    <label className="field">
      <span className="label">{label}</span>
      <input value={value} maxLength={most} onChange={(e) => onChange(e.target.value)} />
    </label>
  );
}

function Choice({
  label,
  value,
  known,
  onChange,
}: {
  label: string;
  value: string | null;
  known: readonly Known[];
  onChange: (id: string | null) => void;
}) {
  return (
    <label className="field">
      <span className="label">{label}</span>
      <select value={value ?? ''} onChange={(e) => onChange(e.target.value || null)}>
        <option value="">{w.none()}</option>
        {known.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
    </label>
  );
}

/** What is there already and may be the same, by line. Each draft is asked about once, however the lines around it change. */
function useLookalikes(rows: readonly EntryRow[]): ReadonlyMap<string, string> {
  const [found, setFound] = useState<ReadonlyMap<string, string>>(new Map());
  const known = useRef(new Map<string, string>());
  const asked = JSON.stringify(rows.slice(0, COMPARED).map((row) => [row.line, JSON.stringify(draftOf(row))]));
  useEffect(() => {
    const leave = new AbortController();
    const timer = setTimeout(async () => {
      const pairs = JSON.parse(asked) as [string, string][];
      for (const [, draft] of pairs) {
        if (known.current.has(draft) || leave.signal.aborted) continue;
        const sentence = await likeSentence(draft, leave.signal);
        if (sentence !== undefined) known.current.set(draft, sentence);
      }
      if (!leave.signal.aborted) setFound(new Map(pairs.map(([line, draft]) => [line, known.current.get(draft) ?? ''])));
    }, 500);
    return () => {
      clearTimeout(timer);
      leave.abort();
    };
  }, [asked]);
  return found;
}

/** What Proof says of a draft's likeness to others, or of who needs its place; undefined when there was no answer. */
async function likeSentence(draft: string, signal: AbortSignal): Promise<string | undefined> {
  const request = { method: 'POST', body: `{"id":null,"content":${draft}}`, headers: { 'content-type': 'application/json' }, signal };
  const outcome = await ask<{ notes: ValidationNote[] }>('/api/v1/proof', request);
  if (outcome.kind !== 'done') return undefined;
  const { notes } = outcome.value;
  const near = notes.find((n) => n.kind === 'lookalike') ?? notes.find((n) => n.kind === 'venue-clash');
  return near ? sayNote(near.says) : '';
}
