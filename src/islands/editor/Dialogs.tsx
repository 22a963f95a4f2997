/** Dialogs of the editor: sign in again, and two who saved. */
import { type FormEvent, useState } from 'react';
import { send } from '@/client/api';
import type { ListingContent } from '@/core/listing/content';
import { type ContentField, FIELDS } from '@/core/listing/fields';
import { sayField } from '@/core/listing/say-field';
import type { Style } from '@/core/phrase/format';
import { AskBox, Box } from '../fields/Box';
import type { Conflict } from './use-listing';
import { editorWords } from '@/words/desk';

const w = editorWords.dialogs;

export function SignInAgain({ onDone, onClose }: { onDone: () => void; onClose: () => void }) {
  const [wrong, setWrong] = useState('');
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    const form = new FormData(event.currentTarget);
    const outcome = await send('POST', '/api/auth/sign-in/email', { email: form.get('email'), password: form.get('password') });
    if (outcome.kind === 'done') onDone();
    else
      setWrong(
        outcome.kind === 'offline'
          ? w.noConnectionTryAgain()
          : outcome.kind === 'refused' && outcome.status === 429
            ? w.thatWasTooOften()
            : w.noAccountHasThis(),
      );
  };
  return (
    <AskBox title={w.yourSessionHasEnded()} command={w.signInAndSave()} wrong={wrong} onSubmit={submit} onClose={onClose}>
      <p className="m-0">{w.nothingIsLostSign()}</p>
      <div className="field">
        <label htmlFor="again-mail">{w.mailAddress()}</label>
        <input id="again-mail" name="email" type="email" autoComplete="username" required />
      </div>
      <div className="field">
        <label htmlFor="again-word">{w.password()}</label>
        <input id="again-word" name="password" type="password" autoComplete="current-password" required />
      </div>
    </AskBox>
  );
}

export function TwoSaved({
  conflict,
  mine,
  names,
  style,
  onKeep,
  onClose,
}: {
  conflict: Conflict;
  mine: ListingContent;
  names: Map<string, string>;
  style: Style;
  onKeep: (content: ListingContent) => void;
  onClose: () => void;
}) {
  const [theirs, setTheirs] = useState<ReadonlySet<ContentField>>(new Set());
  const say = (content: ListingContent, part: ContentField): string =>
    sayField(part, content, (id) => names.get(id), style).slice(0, 400) || '(nothing)';
  const keep = (): void => {
    const result = { ...conflict.merged } as Record<keyof ListingContent, unknown>;
    for (const part of theirs) result[part] = conflict.newer.content[part];
    onKeep(result as unknown as ListingContent);
  };
  return (
    <Box title={w.savedThisListingAfter({ by: conflict.newer.by })} onClose={onClose}>
      {conflict.collisions.length === 0 ? <p>{w.youChangedDifferentParts()}</p> : <p>{w.youBothChangedThe()}</p>}
      {conflict.collisions.map((part) => (
        <fieldset key={part} className="m-0 mb-2.5 border-0 p-0">
          <legend className="label">{FIELDS[part].label}</legend>
          <div className="grid grid-cols-[1fr_1fr] gap-2.5 my-1.5 max-[700px]:grid-cols-[1fr]">
            <div className="border border-rule p-2 wrap-anywhere bg-sheet">
              <label className="check">
                <input
                  type="radio"
                  name={part}
                  checked={!theirs.has(part)}
                  onChange={() => setTheirs(new Set([...theirs].filter((t) => t !== part)))}
                />{' '}
                {w.yours()}
              </label>
              <div>{say(mine, part)}</div>
            </div>
            <div className="border border-rule p-2 wrap-anywhere bg-sheet">
              <label className="check">
                <input type="radio" name={part} checked={theirs.has(part)} onChange={() => setTheirs(new Set([...theirs, part]))} />{' '}
                {conflict.newer.by}’s
              </label>
              <div>{say(conflict.newer.content, part)}</div>
            </div>
          </div>
        </fieldset>
      ))}
      <div className="row">
        <button type="button" className="button main" onClick={keep}>
          {w.saveItLikeThis()}
        </button>
        <button type="button" className="button" onClick={onClose}>
          {w.goOnEditing()}
        </button>
      </div>
    </Box>
  );
}
