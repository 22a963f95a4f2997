/** A venue or an organizer made without leaving the listing; likely doubles are named while the name is typed. */
import { type FormEvent, useState } from 'react';
import { send, sayFailure } from '@/client/api';
import { LikeNames } from '../places/NameField';
import { AskBox } from '../fields/Box';

export interface Made {
  id: string;
  name: string;
  /** was a venue's address found, so that it has a position? */
  placed?: boolean;
}

interface Known extends Made {
  more: string;
}

const VENUE_FIELDS = [
  ['street', 'Street'],
  ['town', 'Town'],
  ['island', 'Area or island'],
] as const;
const ORGANIZER_FIELDS = [
  ['phone', 'Phone'],
  ['mail', 'Mail'],
  ['website', 'Website'],
] as const;

export function MakeDialog({
  kind,
  name: typed,
  known,
  onMade,
  onTake,
  onClose,
}: {
  kind: 'venues' | 'organizers';
  name: string;
  known: readonly Known[];
  onMade: (made: Made, more: string) => void;
  onTake: (id: string) => void;
  onClose: () => void;
}) {
  const [errors, setErrors] = useState<Map<string, string>>(new Map());
  const [wrong, setWrong] = useState('');
  const [name, setName] = useState(typed);
  const fields = kind === 'venues' ? VENUE_FIELDS : ORGANIZER_FIELDS;
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    const values = Object.fromEntries(new FormData(event.currentTarget));
    const outcome = await send<Made>('POST', `/api/v1/${kind}`, values);
    if (outcome.kind === 'done') return onMade(outcome.value, String(values.town ?? ''));
    if (outcome.kind === 'refused') setErrors(new Map(outcome.fields.map((f) => [f.field, f.message])));
    setWrong(sayFailure(outcome));
  };
  return (
    <AskBox
      title={kind === 'venues' ? 'Make a venue' : 'Make an organizer'}
      command="Make it"
      wrong={wrong}
      onSubmit={submit}
      onClose={onClose}
    >
      <div className="field">
        <label htmlFor="make-name">Name</label>
        <input
          id="make-name"
          name="name"
          value={name}
          required
          maxLength={120}
          onChange={(e) => setName(e.target.value)}
          aria-invalid={errors.has('name') || undefined}
        />
        <LikeNames name={name} known={known} onTake={(place) => onTake(place.id)} />
        {errors.has('name') && <span className="wrong">{errors.get('name')}</span>}
      </div>
      {fields.map(([key, label]) => (
        <div className="field" key={key}>
          <label htmlFor={`make-${key}`}>{label}</label>
          <input id={`make-${key}`} name={key} aria-invalid={errors.has(key) || undefined} />
          {errors.has(key) && <span className="wrong">{errors.get(key)}</span>}
        </div>
      ))}
      {kind === 'venues' && (
        <p className="hint m-0">Its position is looked up from the address; the pin can be set on the venue’s own page.</p>
      )}
    </AskBox>
  );
}
