/** Fields of a row that need more than a line: its tags or organizers, its first day and time. */
import { useState } from 'react';
import { isoDateTime, parseIsoDateTime } from '@/core/day/plain-date-time';
import { isoDay } from '@/core/day/day';
import { ClockField } from '../fields/ClockField';
import { DayField } from '../fields/DayField';
import { AskBox } from '../fields/Box';
import { Check } from '../fields/fields';
import { Picker } from '../editor/Picker';
import type { Named, TableStart } from './chosen';
import { useMakeTag } from './use-make-tag';
import { tableWords } from '@/words/desk';

const w = tableWords.cellDialogs;

interface ListProps {
  title: string;
  field: 'tags' | 'organizers';
  start: TableStart;
  ids: string[];
  onKeep: (ids: string[]) => void;
  onClose: () => void;
}

export function ListDialog({ title, field, start, ids, onKeep, onClose }: ListProps) {
  const [chosen, setChosen] = useState(ids);
  const [known, setKnown] = useState<Named[]>(start[field]);
  const tag = useMakeTag((made) => {
    start[field] = [...start[field].filter((one) => one.id !== made.id), made];
    setKnown(start[field]);
    setChosen((all) => [...new Set([...all, made.id])]);
  });
  const words = field === 'tags' ? w.tags() : w.organizers();
  return (
    <AskBox
      title={w.of({ words, title: title || w.withoutATitle() })}
      command={tag.busy ? w.oneMoment() : w.keep()}
      disabled={tag.busy}
      wrong={tag.wrong}
      onSubmit={async () => onKeep(chosen)}
      onClose={onClose}
    >
      <Picker
        label={words}
        choices={known.map((one) => ({ ...one, more: '' }))}
        chosen={chosen}
        onChange={setChosen}
        onMake={field === 'tags' ? (name) => void tag.make(name) : undefined}
      />
    </AskBox>
  );
}

interface WhenProps {
  title: string;
  start: TableStart;
  /** the first date, `2027-03-07T19:00`; empty = none yet */
  value: string;
  today: string;
  onKeep: (wall: string) => void;
  onClose: () => void;
}

export function WhenDialog({ title, start, value, today, onKeep, onClose }: WhenProps) {
  const wall = parseIsoDateTime(value || today);
  const [day, setDay] = useState(isoDay(wall?.day ?? 0));
  const [minute, setMinute] = useState<number | null>(value ? (wall?.minute ?? null) : 19 * 60);
  const typed = parseIsoDateTime(day);
  const keep = async (): Promise<void> => {
    if (typed) onKeep(isoDateTime({ day: typed.day, minute }));
  };
  return (
    <AskBox
      title={w.firstDateOf({ title: title || w.withoutATitle() })}
      command={w.keep()}
      disabled={!typed}
      onSubmit={keep}
      onClose={onClose}
    >
      <div>
        <DayField label={w.day()} value={day} onChange={setDay} />
        {minute !== null && (
          <ClockField label={w.starts()} value={minute} hours={start.style.hours} onChange={(next) => next !== null && setMinute(next)} />
        )}
      </div>
      <Check label={w.allDay()} checked={minute === null} onChange={(on) => setMinute(on ? null : 19 * 60)} />
      <p className="hint m-0">{w.itsLengthStaysAnd()}</p>
    </AskBox>
  );
}
