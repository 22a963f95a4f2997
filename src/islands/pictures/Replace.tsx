/** Another file in a picture's place, wherever it is shown; taken back with one button. */
import { siteAddress } from '@/client/site-root';
import { useState } from 'react';
import { sayFailure, send } from '@/client/api';
import { sendFile } from '@/client/upload';
import type { PictureChoice } from '@/core/listing/editor';
import { picturesWords } from '@/words/desk';

const w = picturesWords.replace;

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
      setSaid(w.replacedWhatItShows({ uses: uses ? w.inPlace({ uses }) : '' }));
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
          {part === null ? w.replaceByAnotherFile() : part < 1 ? w.beingSent({ n: Math.round(part * 100) }) : w.beingMadeIntoIts()}
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
              {w.undo()}
            </button>
            <a href={siteAddress(`/desk/pictures/${id}`)}>{w.lookAtIt()}</a>
          </>
        )}
      </div>
      <span className="hint" role="status">
        {said || (uses ? w.allPlaceThatShows({ uses }) : '')}
      </span>
    </div>
  );
}
