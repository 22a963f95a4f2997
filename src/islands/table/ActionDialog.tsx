/** One action on the chosen listings: what it needs, what it will do, and doing it. */
import { openPage } from '@/client/site-root';
import { useEffect, useRef, useState } from 'react';
import { sayFailure, send } from '@/client/api';
import { BULK_WORDS, type BulkAction, type BulkPlan, MOST_SHIFT_DAYS, sayStays } from '@/core/listing/bulk-actions';
import { AskBox } from '../fields/Box';
import { Picker } from '../editor/Picker';
import { actionOf, type Kind, type Parts } from './action';
import { keepChosen, type Named, type TableStart } from './chosen';
import { useMakeTag } from './use-make-tag';
import { tableWords } from '@/words/desk';

const w = tableWords.bulkBar;

const boxIds = (): string[] =>
  [...document.querySelectorAll<HTMLInputElement>('[data-rows] tbody input[name=chosen]')].map((box) => box.value);

const NEEDS: Partial<Record<Kind, 'categories' | 'venues' | 'organizers'>> = {
  category: 'categories',
  venue: 'venues',
  organizer: 'organizers',
};

/** The listings an action is for: some by id, or all that the table's choice holds. */
type Chosen = { ids: string[] } | { query: string };

/** What the action will do, asked anew when the action differs; `undefined` as action asks nothing. */
function useBulkPlan(chosen: Chosen, action: BulkAction | undefined) {
  const [plan, setPlan] = useState<BulkPlan | null>(null);
  const [wrong, setWrong] = useState('');
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
  return { plan, wrong, setWrong };
}

interface ActionDialogProps {
  kind: Kind;
  start: TableStart;
  /** undefined = everything that the table's choice holds */
  ids: string[] | undefined;
  count: number;
  onClose: () => void;
}

export function ActionDialog({ kind, start, ids, count, onClose }: ActionDialogProps) {
  const [parts, setParts] = useState<Parts>({ target: '', tags: [], instead: false, days: 7, on: true });
  const [known, setKnown] = useState(start.tags);
  const [busy, setBusy] = useState(false);
  const action = actionOf(kind, parts);
  const chosen = ids ? { ids } : { query: start.query };
  const { plan, wrong, setWrong } = useBulkPlan(chosen, action);
  const tag = useMakeTag((made) => {
    setKnown((all) => [...all.filter((one) => one.id !== made.id), made]);
    setParts((now) => ({ ...now, tags: [...new Set([...now.tags, made.id])] }));
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
    openPage(`/desk/listings?${next}`);
  };
  return (
    <AskBox
      title={`${BULK_WORDS[kind].verb}: ${w.listing({ count })}`}
      command={busy || tag.busy ? w.oneMoment() : BULK_WORDS[kind].verb}
      disabled={!plan?.can || busy || tag.busy}
      wrong={wrong || tag.wrong}
      onSubmit={run}
      onClose={onClose}
    >
      <ActionFields
        kind={kind}
        start={start}
        known={known}
        parts={parts}
        set={(change) => setParts((now) => ({ ...now, ...change }))}
        onMakeTag={(name) => void tag.make(name)}
      />
      <PlanReport kind={kind} plan={plan} waiting={Boolean(action && !plan && !wrong)} />
    </AskBox>
  );
}

interface ActionFieldsProps {
  kind: Kind;
  start: TableStart;
  /** the tags there are, with those made just now */
  known: readonly Named[];
  parts: Parts;
  set: (change: Partial<Parts>) => void;
  onMakeTag: (name: string) => void;
}

/** What an action needs to know. */
function ActionFields({ kind, start, known, parts, set, onMakeTag }: ActionFieldsProps) {
  const needs = NEEDS[kind];
  // As it is typed: a minus alone is no number yet.
  const [days, setDays] = useState(String(parts.days));
  return (
    <>
      {kind === 'tag' && (
        <Picker
          label={w.tags()}
          choices={known.map((one) => ({ ...one, more: '' }))}
          chosen={parts.tags}
          onChange={(tags) => set({ tags })}
          onMake={parts.instead ? undefined : onMakeTag}
        />
      )}
      {needs && (
        <div className="field">
          <label htmlFor="bulk-target">{{ categories: w.category(), venues: w.venue(), organizers: w.organizer() }[needs]}</label>
          <select id="bulk-target" value={parts.target} onChange={(e) => set({ target: e.target.value })}>
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
          <input type="checkbox" checked={parts.instead} onChange={(e) => set({ instead: e.target.checked })} /> {w.insteadOfWhatThey()}
        </label>
      )}
      {kind === 'tag' && (
        <label className="check">
          <input type="checkbox" checked={parts.instead} onChange={(e) => set({ instead: e.target.checked })} /> {w.takeItOffThem()}
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
            onChange={(e) => {
              setDays(e.target.value);
              set({ days: Number(e.target.value) });
            }}
          />
          <span className="hint">{w.rulesFollowATuesday()}</span>
        </div>
      )}
      {kind === 'headline' && (
        <label className="check">
          <input type="checkbox" checked={parts.on} onChange={(e) => set({ on: e.target.checked })} /> {w.giveThemMoreWeight()}
        </label>
      )}
    </>
  );
}

/** What the action will do, and which listings stay as they are and why. */
function PlanReport({ kind, plan, waiting }: { kind: Kind; plan: BulkPlan | null; waiting: boolean }) {
  const unsaid = plan ? plan.cannotCount - plan.cannot.reduce((sum, { count }) => sum + count, 0) : 0;
  return (
    <div role="status" aria-live="polite">
      {waiting && <p className="quiet">{w.oneMoment()}</p>}
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
  );
}
