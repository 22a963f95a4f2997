/** Copies a listing: the new date is asked for first, then its title. */
import { openPage } from '@/client/site-root';
import { mostOf } from '@/core/listing/fields';
import { useMemo, useState } from 'react';
import { sayFailure, send } from '@/client/api';
import type { EditorStart } from '@/core/listing/editor';
import { isoDay } from '@/core/day/day';
import { sayDay, sayList } from '@/core/phrase/format';
import { daysIn } from '@/core/phrase/days-in';
import { MOST_CHARACTERS, readPhrase } from '@/core/phrase/read/read-phrase';
import { sayRecurrence } from '@/core/phrase/say';
import { toStored } from '@/core/recurrence/stored';
import { Questions } from '../fields/Questions';
import { AskBox } from '../fields/Box';
import { editorWords } from '@/words/desk';

const w = editorWords.copyDialog;

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
  const reading = useMemo(
    () =>
      readPhrase({
        ...{ phrase: when.slice(0, MOST_CHARACTERS), now: { day: site.today, minute: site.minute }, zone: site.zone },
        ...{ weekStart: site.firstWeekday, style: site.style, sunAt: site.sunAt ?? undefined },
      }),
    [when, site],
  );
  const settled = when.trim() !== '' && reading.recurrence !== null && !reading.problems.length;
  const submit = async (): Promise<void> => {
    if (days === undefined && !settled) return setWrong(reading.problems.length ? w.answerWhatIsAsked() : w.writeWhenItIs());
    setBusy(true);
    const dates =
      days === undefined && reading.recurrence
        ? { days: [], recurrence: toStored(reading.recurrence) }
        : { days: (days ?? []).map(isoDay) };
    const outcome = await send<{ id: string }>('POST', `/api/v1/listings/${id}/copy`, { title: name, ...dates });
    if (outcome.kind === 'done') openPage(`/desk/listings/${outcome.value.id}`);
    else {
      setBusy(false);
      setWrong(sayFailure(outcome));
    }
  };
  return (
    <AskBox title={w.copyThisListing()} command={w.copyIt()} disabled={busy} wrong={wrong} onSubmit={submit} onClose={onClose}>
      <div className="field">
        <label htmlFor="copy-when">{w.whenIsIt()}</label>
        <input
          id="copy-when"
          // biome-ignore lint/a11y/noAutofocus: the dialog begins with its first question
          autoFocus
          autoComplete="off"
          value={when}
          onChange={(e) => setWhen(e.target.value)}
          maxLength={MOST_CHARACTERS}
          placeholder={w.n3April()}
        />
        <span className="hint" role="status">
          {days?.length
            ? w.theHourStaysA({ list: sayList(days.map((d) => sayDay(d, site.style, { weekday: 'short', year: true }))) })
            : settled && reading.recurrence
              ? w.whereNoHourIs({ recurrence: sayRecurrence(reading.recurrence, site.style) })
              : when.trim()
                ? reading.problems.length
                  ? w.someOfItIs()
                  : w.noDateIsIn()
                : w.leftEmptyItsDates()}
        </span>
        {when.trim() !== '' && !days?.length && <Questions reading={reading} text={when} onText={setWhen} />}
      </div>
      <div className="field">
        <label htmlFor="copy-title">{w.title()}</label>
        <input id="copy-title" required maxLength={mostOf('title')} value={name} onChange={(e) => setName(e.target.value)} />
      </div>
      <p className="hint m-0">{w.changesToSingleDates()}</p>
    </AskBox>
  );
}
