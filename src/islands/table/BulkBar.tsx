/** The bar of chosen listings: what to do with them, what that will do, and doing it. */
import { useEffect, useRef, useState } from 'react';
import { sayFailure, send } from '@/client/api';
import { BULK_WORDS, type BulkAction, type BulkPlan, MOST_SHIFT_DAYS, sayStays } from '@/core/listing/bulk-actions';
import { AskBox } from '../fields/Box';
import { Picker } from '../editor/Picker';
import { keepChosen, type Named, type TableStart } from './chosen';
import { useMakeTag } from './use-make-tag';
import { tableWords } from '@/words/desk';

const w = tableWords.bulkBar;

interface BarProps {
  start: TableStart;
  /** undefined = everything that the table's choice holds */
  ids: string[] | undefined;
  count: number;
  onEverything: (() => void) | undefined;
  onClear: () => void;
}

type Kind = BulkAction['kind'];

export function BulkBar({ start, ids, count, onEverything, onClear }: BarProps) {
  const [kind, setKind] = useState<Kind | ''>('');
  const kinds: Kind[] = [
    ...(start.mayPublish ? (['publish', 'withdraw'] as const) : []),
    'draft',
    'category',
    'venue',
    'organizer',
    'tag',
    'shift',
    'headline',
    'bin',
  ];
  return (
    <section
      className="[&_:focus-visible]:outline-white fixed left-0 right-0 bottom-0 z-6 bg-bar text-on-bar py-2.5 px-5 flex flex-wrap gap-y-2 gap-x-3.5 items-center"
      aria-label={w.chosenListings()}
    >
      <strong role="status">{w.listingChosen({ count })}</strong>
      {onEverything && (
        <button type="button" className="link text-on-bar min-h-6" onClick={onEverything}>
          {w.allThatTheTable({ total: start.total.toLocaleString('en') })}
        </button>
      )}
      <select
        className="box w-auto max-w-full"
        aria-label={w.whatToDoWith()}
        value={kind}
        onChange={(e) => setKind(e.target.value as Kind)}
      >
        <option value="">{w.whatToDoWithThem()}</option>
        {kinds.map((k) => (
          <option key={k} value={k}>
            {BULK_WORDS[k].verb}
          </option>
        ))}
      </select>
      <a
        className="button small"
        href={`/desk/export/listings.csv?${ids ? new URLSearchParams({ ids: ids.join(',') }) : start.query}`}
        download
      >
        {w.asATable()}
      </a>
      <button type="button" className="button small" onClick={onClear}>
        {w.none()}
      </button>
      {kind && <ActionDialog key={kind} kind={kind} start={start} ids={ids} count={count} onClose={() => setKind('')} />}
    </section>
  );
}

const boxIds = (): string[] =>
  [...document.querySelectorAll<HTMLInputElement>('[data-rows] tbody input[name=chosen]')].map((box) => box.value);

const NEEDS: Partial<Record<Kind, 'categories' | 'venues' | 'organizers'>> = {
  category: 'categories',
  venue: 'venues',
  organizer: 'organizers',
};

function ActionDialog({
  kind,
  start,
  ids,
  count,
  onClose,
}: {
  kind: Kind;
  start: TableStart;
  ids: string[] | undefined;
  count: number;
  onClose: () => void;
}) {
  const needs = NEEDS[kind];
  const [target, setTarget] = useState('');
  const [tags, setTags] = useState<string[]>([]);
  const [known, setKnown] = useState(start.tags);
  const [instead, setInstead] = useState(false);
  const [days, setDays] = useState('7');
  const [on, setOn] = useState(true);
  const [plan, setPlan] = useState<BulkPlan | null>(null);
  const [wrong, setWrong] = useState('');
  const [busy, setBusy] = useState(false);
  const action = actionOf(kind, { target, tags, instead, days: Number(days), on });
  const chosen = ids ? { ids } : { query: start.query };
  const asked = JSON.stringify(action);
  const turn = useRef(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked anew when the action itself differs
  useEffect(() => {
    setPlan(null);
    setWrong('');
    if (!action) return;
    const mine = ++turn.current;
    const timer = setTimeout(() => {
      void send<BulkPlan>('POST', '/api/v1/bulk/plan', { ...chosen, action }).then((outcome) => {
        if (mine !== turn.current) return;
        if (outcome.kind === 'done') setPlan(outcome.value);
        else setWrong(sayFailure(outcome));
      });
    }, 120);
    return () => clearTimeout(timer);
  }, [asked]);
  const tag = useMakeTag((made) => {
    setKnown((all) => [...all.filter((one) => one.id !== made.id), made]);
    setTags((all) => [...new Set([...all, made.id])]);
  });
  const run = async (): Promise<void> => {
    if (!action) return;
    setBusy(true);
    const outcome = await send<{ run: string }>('POST', '/api/v1/bulk', { ...chosen, action });
    if (outcome.kind !== 'done') {
      setBusy(false);
      setWrong(sayFailure(outcome));
      return;
    }
    const next = new URLSearchParams(start.query);
    next.set('run', outcome.value.run);
    keepChosen(ids ?? boxIds());
    location.assign(`/desk/listings?${next}`);
  };
  const unsaid = plan ? plan.cannotCount - plan.cannot.reduce((sum, { count }) => sum + count, 0) : 0;
  return (
    <AskBox
      title={`${BULK_WORDS[kind].verb}: ${w.listing({ count })}`}
      command={busy || tag.busy ? w.oneMoment() : BULK_WORDS[kind].verb}
      disabled={!plan?.can || busy || tag.busy}
      wrong={wrong || tag.wrong}
      onSubmit={run}
      onClose={onClose}
    >
      {kind === 'tag' && (
        <Picker
          label={w.tags()}
          choices={known.map((one) => ({ ...one, more: '' }))}
          chosen={tags}
          onChange={setTags}
          onMake={instead ? undefined : (name) => void tag.make(name)}
        />
      )}
      {needs && (
        <div className="field">
          <label htmlFor="bulk-target">{{ categories: w.category(), venues: w.venue(), organizers: w.organizer() }[needs]}</label>
          <select id="bulk-target" value={target} onChange={(e) => setTarget(e.target.value)}>
            <option value="">{w.chooseOne()}</option>
            {start[needs].map((one: Named) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </div>
      )}
      {(kind === 'category' || kind === 'organizer') && (
        <label className="check">
          <input type="checkbox" checked={instead} onChange={(e) => setInstead(e.target.checked)} /> {w.insteadOfWhatThey()}
        </label>
      )}
      {kind === 'tag' && (
        <label className="check">
          <input type="checkbox" checked={instead} onChange={(e) => setInstead(e.target.checked)} /> {w.takeItOffThem()}
        </label>
      )}
      {kind === 'shift' && (
        <div className="field">
          <label htmlFor="bulk-days">{w.daysLaterWithA()}</label>
          <input
            id="bulk-days"
            type="number"
            min={-MOST_SHIFT_DAYS}
            max={MOST_SHIFT_DAYS}
            value={days}
            onChange={(e) => setDays(e.target.value)}
          />
          <span className="hint">{w.rulesFollowATuesday()}</span>
        </div>
      )}
      {kind === 'headline' && (
        <label className="check">
          <input type="checkbox" checked={on} onChange={(e) => setOn(e.target.checked)} /> {w.giveThemMoreWeight()}
        </label>
      )}
      <div role="status" aria-live="polite">
        {action && !plan && !wrong && <p className="quiet">{w.oneMoment()}</p>}
        {plan && (
          <>
            <p className="m-0">
              {plan.can ? w.listingWillBe({ can: plan.can, done: BULK_WORDS[kind].done }) : w.noneOfThemCan()}
              {plan.cannotCount > 0 && w.cannot({ cannotCount: plan.cannotCount })}
            </p>
            {plan.cannot.length > 0 && (
              <ul className="small m-0 mt-1 list-disc pl-5">
                {plan.cannot.map((stays) => (
                  <li key={stays.reason}>{sayStays(stays)}</li>
                ))}
                {unsaid > 0 && <li>{w.forOtherReasons({ unsaid })}</li>}
              </ul>
            )}
          </>
        )}
      </div>
    </AskBox>
  );
}

interface Parts {
  target: string;
  tags: string[];
  instead: boolean;
  days: number;
  on: boolean;
}

/** The action as it stands in the form; undefined while something is missing. */
export function actionOf(kind: Kind, { target, tags, instead, days, on }: Parts): BulkAction | undefined {
  switch (kind) {
    case 'category':
    case 'organizer':
      return target ? { kind, id: target, instead } : undefined;
    case 'venue':
      return target ? { kind, id: target } : undefined;
    case 'shift':
      return Number.isInteger(days) && days !== 0 && Math.abs(days) <= MOST_SHIFT_DAYS ? { kind, days } : undefined;
    case 'headline':
      return { kind, on };
    case 'tag':
      return tags.length ? { kind, ids: tags, off: instead } : undefined;
    default:
      return { kind };
  }
}
