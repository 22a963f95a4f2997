/** Above a sheet: which months, month or half a year, and what of everything is shown. */
import { type EpochDay, firstDayOfMonth } from '@/core/day/day';
import { STAGE_WORDS, STAGES, type Stage } from '@/core/listing/content';
import { type DeskSheetStart, HALF_YEAR } from '@/core/sheet/desk-sheet';
import { sayMonths } from './state';
import { addressOf, type Dates } from './use-dates';
import { sheetWords } from '@/words/desk';

const w = sheetWords.filterRow;

interface Props {
  start: DeskSheetStart;
  dates: Dates;
  today: EpochDay;
  active: EpochDay;
  onGo: (day: EpochDay) => void;
}

const FIELD = 'max-w-37.5 py-0.75 px-1.75 min-h-7.5 border border-ink-3 rounded-xs bg-sheet max-[700px]:max-w-none max-[700px]:w-full';

export function FilterRow({ start, dates: { shown, show, dates, cut }, today, active, onGo }: Props) {
  const { view, month, filters } = shown;
  const stepBy = view === 'month' ? 1 : HALF_YEAR;
  const turn = (by: number): void => {
    show({ month: month + by });
    onGo(firstDayOfMonth(month + by));
  };
  const filtered = filters.stages.length > 0 || filters.kind !== '' || filters.venue !== '' || filters.words !== '';
  const [stage = ''] = filters.stages;
  return (
    <div className="ds-head flex flex-wrap gap-y-1.5 gap-x-3.5 items-center">
      <h1 className="text-[25px] min-w-47.5 max-[700px]:min-w-0 max-[700px]:text-[22px] max-[700px]:flex-[1_1_100%]">
        {sayMonths(view, month)}
      </h1>
      <Turns view={view} onTurn={(direction) => turn(direction * stepBy)} onToday={() => onGo(today)} />
      <Views
        shown={shown}
        onView={(name) => {
          if (name !== view) show({ view: name });
          onGo(active);
        }}
      />
      <div className="flex flex-wrap gap-1.5 items-center ml-auto max-[980px]:ml-0">
        <label className="max-[700px]:flex-[1_1_40%]">
          <span className="hidden-words">{w.find()}</span>
          <input
            className={FIELD}
            type="search"
            placeholder={w.findATitle()}
            value={filters.words}
            maxLength={80}
            onChange={(event) => show({ filters: { ...filters, words: event.target.value } })}
          />
        </label>
        <Pick
          label={w.stage()}
          every={w.everyStage()}
          value={stage}
          options={STAGES.map((name) => [name, STAGE_WORDS[name]])}
          onPick={(name) => show({ filters: { ...filters, stages: name ? [name as Stage] : [] } })}
        />
        <Pick
          label={w.category()}
          every={w.everyCategory()}
          value={filters.kind}
          options={start.categories.map((c) => [c.slug, `${c.child ? '– ' : ''}${c.name}`])}
          onPick={(kind) => show({ filters: { ...filters, kind } })}
        />
        <Pick
          label={w.venue()}
          every={w.everyVenue()}
          value={filters.venue}
          options={start.venues.map((v) => [v.slug, v.name])}
          onPick={(venue) => show({ filters: { ...filters, venue } })}
        />
        <span className="small quiet" role="status">
          {cut ? w.theFirstDates({ n: dates.length.toLocaleString('en') }) : w.date({ n: dates.length })}
        </span>
        {filtered && (
          <button type="button" className="link" onClick={() => show({ filters: { stages: [], kind: '', venue: '', words: '' } })}>
            {w.showEverything()}
          </button>
        )}
      </div>
    </div>
  );
}

interface PickProps {
  label: string;
  /** the choice of nothing, which shows everything */
  every: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onPick: (value: string) => void;
}

/** One choice of what is shown. */
function Pick({ label, every, value, options, onPick }: PickProps) {
  return (
    <label className="max-[700px]:flex-[1_1_40%]">
      <span className="hidden-words">{label}</span>
      <select className={FIELD} value={value} onChange={(event) => onPick(event.target.value)}>
        <option value="">{every}</option>
        {options.map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}

type View = Dates['shown']['view'];

/** The months before and after, and back to today. */
function Turns({ view, onTurn, onToday }: { view: View; onTurn: (direction: 1 | -1) => void; onToday: () => void }) {
  return (
    <div className="flex gap-1 print:hidden!">
      <button
        type="button"
        className="button small icon"
        aria-label={view === 'month' ? w.monthBefore() : w.halfAYearBefore()}
        onClick={() => onTurn(-1)}
      >
        ‹
      </button>
      <button type="button" className="button small" onClick={onToday}>
        {w.today()}
      </button>
      <button
        type="button"
        className="button small icon"
        aria-label={view === 'month' ? w.monthAfter() : w.halfAYearAfter()}
        onClick={() => onTurn(1)}
      >
        ›
      </button>
    </div>
  );
}

/** The sheet's two spans, as links that a new tab can open too. */
function Views({ shown, onView }: { shown: Dates['shown']; onView: (name: View) => void }) {
  return (
    <div className="flex gap-3.5">
      {(['month', 'half-year'] as const).map((name) => (
        <a
          className="no-underline py-0.75 border-b-2 border-b-unmarked [&[aria-current]]:font-bold [&[aria-current]]:border-ink [&[aria-current]]:text-ink"
          key={name}
          href={addressOf({ ...shown, view: name })}
          aria-current={name === shown.view ? 'page' : undefined}
          onClick={(event) => {
            if (event.ctrlKey || event.metaKey || event.shiftKey) return;
            event.preventDefault();
            onView(name);
          }}
        >
          {name === 'month' ? w.month() : w.halfAYear()}
        </a>
      ))}
    </div>
  );
}
