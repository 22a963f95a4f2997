/** Copies a listing: the new date is asked for first, then its title. */
import { useState } from 'react';
import { sayFailure, send } from '@/client/api';
import type { EditorStart } from '@/core/listing/editor';
import { isoDay } from '@/core/day/day';
import { sayDay, sayList } from '@/core/phrase/format';
import { daysIn } from '@/core/phrase/days-in';
import { AskBox } from '../fields/Box';

interface CopyProps {
  id: string;
  title: string;
  site: EditorStart['site'];
  onClose: () => void;
}

export function CopyDialog({ id, title, site, onClose }: CopyProps) {
  const [when, setWhen] = useState('');
  const [name, setName] = useState(title);
  const [wrong, setWrong] = useState('');
  const [busy, setBusy] = useState(false);
  const days = daysIn(when, site);
  const submit = async (): Promise<void> => {
    if (days === undefined) return setWrong('Write a date such as 3 April, next Tuesday, or 3 and 10 April.');
    setBusy(true);
    const outcome = await send<{ id: string }>('POST', `/api/v1/listings/${id}/copy`, { title: name, days: days.map(isoDay) });
    if (outcome.kind === 'done') location.assign(`/desk/listings/${outcome.value.id}`);
    else {
      setBusy(false);
      setWrong(sayFailure(outcome));
    }
  };
  return (
    <AskBox title="Copy this listing" deed="Copy it" disabled={busy} wrong={wrong} onSubmit={submit} onClose={onClose}>
      <div className="field">
        <label htmlFor="copy-when">On which day, or days?</label>
        {/* biome-ignore lint/a11y/noAutofocus: the dialog begins with its first question */}
        <input id="copy-when" autoFocus autoComplete="off" value={when} onChange={(e) => setWhen(e.target.value)} placeholder="3 April" />
        <span className="hint" role="status">
          {days?.length
            ? `${sayList(days.map((d) => sayDay(d, site.style, { weekday: 'short', year: true })))}. The hour stays; a repeating listing begins then.`
            : when.trim()
              ? 'Not understood yet.'
              : 'Left empty, its dates stay, and Proof holds the copy until somebody looked at them.'}
        </span>
      </div>
      <div className="field">
        <label htmlFor="copy-title">Title</label>
        <input id="copy-title" required maxLength={160} value={name} onChange={(e) => setName(e.target.value)} />
      </div>
      <p className="hint m-0">Changes to single dates, cancellations and breaks stay behind. The copy is a draft.</p>
    </AskBox>
  );
}
