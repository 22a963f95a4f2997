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

export function FilterRow({ start, dates: { shown, show, dates, cut }, today, active, onGo }: Props) {
  const { view, month, filters } = shown;
  const stepBy = view === 'month' ? 1 : HALF_YEAR;
  const turn = (by: number): void => {
    show({ month: month + by });
    onGo(firstDayOfMonth(month + by));
  };
  const filtered = filters.stages.length > 0 || filters.kind !== '' || filters.venue !== '' || filters.words !== '';
  const [stage = ''] = filters.stages;
  const other = { ...shown, view: view === 'month' ? ('half-year' as const) : ('month' as const) };
  return (
    <div className="ds-head flex flex-wrap gap-y-1.5 gap-x-3.5 items-center">
      <h1 className="text-[25px] min-w-47.5 max-[700px]:min-w-0 max-[700px]:text-[22px] max-[700px]:flex-[1_1_100%]">
        {sayMonths(view, month)}
      </h1>
      <div className="flex gap-1 print:hidden!">
        <button
          type="button"
          className="button small icon"
          aria-label={view === 'month' ? w.monthBefore() : w.halfAYearBefore()}
          onClick={() => turn(-stepBy)}
        >
          ‹
        </button>
        <button
          type="button"
          className="button small"
          onClick={() => {
            onGo(today);
          }}
        >
          {w.today()}
        </button>
        <button
          type="button"
          className="button small icon"
          aria-label={view === 'month' ? w.monthAfter() : w.halfAYearAfter()}
          onClick={() => turn(stepBy)}
        >
          ›
        </button>
      </div>
      <div className="flex gap-3.5">
        {(['month', 'half-year'] as const).map((name) => (
          <a
            className="no-underline py-0.75 border-b-2 border-b-unmarked [&[aria-current]]:font-bold [&[aria-current]]:border-ink [&[aria-current]]:text-ink"
            key={name}
            href={addressOf(name === view ? shown : other)}
            aria-current={name === view ? 'page' : undefined}
            onClick={(event) => {
              if (event.ctrlKey || event.metaKey || event.shiftKey) return;
              event.preventDefault();
              if (name !== view) show({ view: name });
              onGo(active);
            }}
          >
            {name === 'month' ? w.month() : w.halfAYear()}
          </a>
        ))}
      </div>
      <div className="flex flex-wrap gap-1.5 items-center ml-auto max-[980px]:ml-0">
        <label className="max-[700px]:flex-[1_1_40%]">
          <span className="hidden-words">{w.find()}</span>
          <input
            className="max-w-37.5 py-0.75 px-1.75 min-h-7.5 border border-ink-3 rounded-xs bg-sheet max-[700px]:max-w-none max-[700px]:w-full"
            type="search"
            placeholder={w.findATitle()}
            value={filters.words}
            maxLength={80}
            onChange={(event) => show({ filters: { ...filters, words: event.target.value } })}
          />
        </label>
        <label className="max-[700px]:flex-[1_1_40%]">
          <span className="hidden-words">{w.stage()}</span>
          <select
            className="max-w-37.5 py-0.75 px-1.75 min-h-7.5 border border-ink-3 rounded-xs bg-sheet max-[700px]:max-w-none max-[700px]:w-full"
            value={stage}
            onChange={(event) => show({ filters: { ...filters, stages: event.target.value ? [event.target.value as Stage] : [] } })}
          >
            <option value="">{w.everyStage()}</option>
            {STAGES.map((name) => (
              <option key={name} value={name}>
                {STAGE_WORDS[name]}
              </option>
            ))}
          </select>
        </label>
        <label className="max-[700px]:flex-[1_1_40%]">
          <span className="hidden-words">{w.category()}</span>
          <select
            className="max-w-37.5 py-0.75 px-1.75 min-h-7.5 border border-ink-3 rounded-xs bg-sheet max-[700px]:max-w-none max-[700px]:w-full"
            value={filters.kind}
            onChange={(event) => show({ filters: { ...filters, kind: event.target.value } })}
          >
            <option value="">{w.everyCategory()}</option>
            {start.categories.map((c) => (
              <option key={c.id} value={c.slug}>
                {c.child ? '– ' : ''}
                {c.name}
              </option>
            ))}
          </select>
        </label>
        <label className="max-[700px]:flex-[1_1_40%]">
          <span className="hidden-words">{w.venue()}</span>
          <select
            className="max-w-37.5 py-0.75 px-1.75 min-h-7.5 border border-ink-3 rounded-xs bg-sheet max-[700px]:max-w-none max-[700px]:w-full"
            value={filters.venue}
            onChange={(event) => show({ filters: { ...filters, venue: event.target.value } })}
          >
            <option value="">{w.everyVenue()}</option>
            {start.venues.map((v) => (
              <option key={v.id} value={v.slug}>
                {v.name}
              </option>
            ))}
          </select>
        </label>
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
