/** A venue or an organizer made without leaving the listing; likely doubles are named while the name is typed. */
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { send, sayFailure } from '@/client/api';
import { MOST_IN } from '@/core/listing/fields';
import { AskBox } from '../fields/Box';
import { Field } from '../fields/fields';
import { LikeNames } from '../places/NameField';
import { editorWords } from '@/words/desk';

const w = editorWords.makeDialog;

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
  ['street', w.street()],
  ['town', w.town()],
  ['island', w.areaOrIsland()],
] as const;
const ORGANIZER_FIELDS = [
  ['phone', w.phone()],
  ['mail', w.mail()],
  ['website', w.website()],
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
  const form = useForm<Record<string, string>>({ defaultValues: { name: typed } });
  const { errors, isSubmitting } = form.formState;
  const [wrong, setWrong] = useState('');
  const fields = kind === 'venues' ? VENUE_FIELDS : ORGANIZER_FIELDS;
  const submit = form.handleSubmit(async (values) => {
    const outcome = await send<Made>('POST', `/api/v1/${kind}`, values);
    if (outcome.kind === 'done') return onMade(outcome.value, values.town ?? '');
    // What the server finds stands at its field until that is changed. An error of what has no field here would hold the form for ever.
    const here = (field: string): boolean => field === 'name' || fields.some(([key]) => key === field);
    if (outcome.kind === 'refused') for (const { field, message } of outcome.fields) if (here(field)) form.setError(field, { message });
    setWrong(sayFailure(outcome));
  });
  return (
    <AskBox
      title={kind === 'venues' ? w.makeAVenue() : w.makeAnOrganizer()}
      command={w.makeIt()}
      disabled={isSubmitting}
      wrong={wrong}
      onSubmit={submit}
      onClose={onClose}
    >
      <div className="grid gap-1">
        <Field label={w.nameWord()} error={errors.name?.message}>
          {({ id, describedBy, invalid }) => (
            <input
              id={id}
              maxLength={MOST_IN.contactName}
              aria-describedby={describedBy}
              aria-invalid={invalid}
              {...form.register('name', { required: w.itNeedsAName() })}
            />
          )}
        </Field>
        <LikeNames name={form.watch('name') ?? ''} known={known} onTake={(place) => onTake(place.id)} />
      </div>
      {fields.map(([key, label]) => (
        <Field key={key} label={label} error={errors[key]?.message}>
          {({ id, describedBy, invalid }) => (
            <input id={id} aria-describedby={describedBy} aria-invalid={invalid} {...form.register(key)} />
          )}
        </Field>
      ))}
      {kind === 'venues' && <p className="hint m-0">{w.itsPositionIsLooked()}</p>}
    </AskBox>
  );
}
