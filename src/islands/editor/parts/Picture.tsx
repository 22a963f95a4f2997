/** The cover picture: sent at once, decided by its bytes on the server; its description is asked for. */
import { useState } from 'react';
import { send, sendPicture } from '@/client/api';
import type { EditorStart } from '@/core/listing/editor';
import { Field, Text } from '../../fields/fields';

type Cover = NonNullable<EditorStart['picture']>;

export function Picture({
  cover,
  onCover,
  error,
}: {
  cover: Cover | null;
  onCover: (cover: Cover | null) => void;
  error: string | undefined;
}) {
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState('');
  const [kept, setKept] = useState(false);
  const take = async (file: File): Promise<void> => {
    setBusy(true);
    setWrong('');
    const outcome = await sendPicture(file);
    setBusy(false);
    if (outcome.kind === 'done') onCover({ ...outcome.value, credit: outcome.value.credit ?? '' });
    else if (outcome.kind === 'refused') setWrong(outcome.title);
    else
      setWrong(
        outcome.kind === 'offline'
          ? 'The picture did not get through; try again.'
          : 'Your session has ended: save the listing to sign in again, then send the picture.',
      );
  };
  const saveWords = async (): Promise<void> => {
    if (!cover) return;
    const outcome = await send('PUT', `/api/v1/pictures/${cover.id}`, { alt: cover.alt, credit: cover.credit });
    setKept(outcome.kind === 'done');
    if (outcome.kind !== 'done') setWrong('The description is not saved yet; try again.');
  };
  return (
    <section className="part" id="picture">
      <h2>Picture</h2>
      <div className="grid">
        {cover && (
          <fieldset
            className="cols"
            style={{ border: 0, padding: 0, margin: 0, minWidth: 0 }}
            aria-label="The chosen picture"
            onBlur={() => void saveWords()}
          >
            <img
              src={`/picture/${cover.id}/640`}
              alt={cover.alt}
              width={cover.width}
              height={cover.height}
              style={{ width: '100%', height: 'auto' }}
            />
            <div className="grid">
              <Text
                label="What it shows"
                rows={3}
                value={cover.alt}
                maxLength={300}
                hint="For those who cannot see it"
                onChange={(alt) => {
                  setKept(false);
                  onCover({ ...cover, alt });
                }}
              />
              <Text
                label="Made by"
                value={cover.credit}
                maxLength={120}
                onChange={(credit) => {
                  setKept(false);
                  onCover({ ...cover, credit });
                }}
              />
              <span className="hint" role="status">
                {kept ? 'Kept.' : ''}
              </span>
              <div>
                <button type="button" className="link" onClick={() => onCover(null)}>
                  Take the picture off
                </button>
              </div>
            </div>
          </fieldset>
        )}
        <Field
          label={cover ? 'Another picture instead' : 'Choose a picture'}
          hint={busy ? 'Sending and resizing …' : 'PNG, JPEG, GIF, WebP or AVIF, up to 20 MB. Without one, lists show the category mark.'}
          error={wrong || error}
        >
          {({ id, describedBy }) => (
            <input
              id={id}
              type="file"
              accept="image/png,image/jpeg,image/gif,image/webp,image/avif"
              aria-describedby={describedBy}
              disabled={busy}
              onChange={(e) => {
                const file = e.target.files?.[0];
                if (file) void take(file);
              }}
            />
          )}
        </Field>
      </div>
    </section>
  );
}
