/** Another file in a picture's place, wherever it is shown; taken back with one button. */
import { useState } from 'react';
import { sayFailure, send } from '@/client/api';
import { sendFile } from '@/client/upload';
import type { PictureChoice } from '@/core/listing/editor';

interface ReplaceProps {
  id: string;
  /** how many places show it */
  uses: number;
}
interface Replaced {
  picture: PictureChoice;
  before: string;
}

export default function Replace({ id, uses }: ReplaceProps) {
  const [part, setPart] = useState<number | null>(null);
  const [said, setSaid] = useState('');
  const [before, setBefore] = useState<string | null>(null);
  const path = `/api/v1/pictures/${id}/file`;
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setPart(0);
    setSaid('');
    const outcome = await sendFile<Replaced>(path, file, setPart);
    setPart(null);
    if (outcome.kind === 'done') {
      setBefore(outcome.value.before);
      setSaid(`Replaced${uses ? ` in ${uses} ${uses === 1 ? 'place' : 'places'}` : ''}. What it shows may need other words.`);
    } else setSaid(sayFailure(outcome));
  };
  const undo = async (): Promise<void> => {
    const outcome = await send('POST', path, { before });
    if (outcome.kind === 'done') location.reload();
    else setSaid(sayFailure(outcome));
  };
  return (
    <div className="field">
      <div className="row">
        <label className="button relative cursor-pointer has-focus-visible:outline-2 has-focus-visible:outline-solid has-focus-visible:outline-tide has-focus-visible:outline-offset-2">
          {part === null ? 'Replace by another file' : part < 1 ? `Being sent, ${Math.round(part * 100)} %` : 'Being made into its sizes …'}
          <input
            className="absolute inset-0 opacity-0 cursor-pointer max-w-full"
            type="file"
            accept="image/*"
            disabled={part !== null}
            onChange={(e) => void take(e.target.files?.[0])}
          />
        </label>
        {before && (
          <>
            <button type="button" className="button" onClick={() => void undo()}>
              Undo
            </button>
            <a href={`/desk/pictures/${id}`}>Look at it</a>
          </>
        )}
      </div>
      <span className="hint" role="status">
        {said || (uses ? `All ${uses} ${uses === 1 ? 'place' : 'places'} that ${uses === 1 ? 'shows' : 'show'} it follow at once.` : '')}
      </span>
    </div>
  );
}
