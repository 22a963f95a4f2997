/** The bar of chosen listings: what to do with them, what that will do, and doing it. */
import { siteAddress } from '@/client/site-root';
import { useState } from 'react';
import { BULK_WORDS } from '@/core/listing/bulk-actions';
import { ActionDialog } from './ActionDialog';
import type { Kind } from './action';
import type { TableStart } from './chosen';
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
        href={siteAddress(`/desk/export/listings.csv?${ids ? new URLSearchParams({ ids: ids.join(',') }) : start.query}`)}
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
