/** Chooses from the library: searched while typing, one picture or several. */
import { useEffect, useState } from 'react';
import { ask, sayFailure } from '@/client/api';
import type { PictureChoice } from '@/core/listing/editor';
import { Box } from '../fields/Box';
import { Thumb } from './Thumb';
import { picturesWords } from '@/words/desk';

const w = picturesWords.chooseDialog;

interface ChooseProps {
  /** chosen already: said on their tiles */
  chosen: readonly string[];
  several: boolean;
  onChoose: (pictures: PictureChoice[]) => void;
  onClose: () => void;
}

const PAUSE_MS = 200;

export function ChooseDialog({ chosen, several, onChoose, onClose }: ChooseProps) {
  const [words, setWords] = useState('');
  const { found, wrong } = useLibrary(words);
  const [picked, setPicked] = useState<PictureChoice[]>([]);
  const pick = (picture: PictureChoice): void => {
    if (!several) onChoose([picture]);
    else setPicked((all) => (all.some((p) => p.id === picture.id) ? all.filter((p) => p.id !== picture.id) : [...all, picture]));
  };
  return (
    <Box title={several ? w.picturesFromTheLibrary() : w.aPictureFromThe()} onClose={onClose} wide>
      <div className="form">
        <div className="field">
          <label htmlFor="choose-words">{w.search()}</label>
          <input
            id="choose-words"
            type="search"
            value={words}
            maxLength={100}
            autoComplete="off"
            onChange={(e) => setWords(e.target.value)}
            placeholder={w.whatItShowsWho()}
          />
        </div>
        <span className="hint" role="status">
          {found
            ? found.total
              ? w.found({ total: found.total, shown: found.total > found.pictures.length ? w.shown({ n: found.pictures.length }) : '' })
              : w.noneFound()
            : w.oneMoment()}
        </span>
        {wrong && (
          <p className="note bad m-0" role="alert">
            {wrong}
          </p>
        )}
        <div className="contact-sheet small grid grid-cols-[repeat(auto-fill,minmax(112px,1fr))] gap-2.5 max-h-[46vh] overflow-auto p-0.75">
          {found?.pictures.map((picture) => {
            const on = picked.some((p) => p.id === picture.id);
            return (
              <button
                type="button"
                key={picture.id}
                className="frame block no-underline text-inherit bg-transparent border-b-2 border-b-rule pb-1 text-left min-w-0 cursor-pointer hover:border-tide aria-pressed:outline-[3px] aria-pressed:outline-solid aria-pressed:outline-tide aria-pressed:outline-offset-1"
                aria-pressed={several ? on : undefined}
                onClick={() => pick(picture)}
              >
                <Thumb picture={picture} width={112} />
                {chosen.includes(picture.id) && <span className="small quiet">{w.chosenAlready()}</span>}
              </button>
            );
          })}
        </div>
        <div className="row">
          {several && (
            <button type="button" className="button main" disabled={!picked.length} onClick={() => onChoose(picked)}>
              {picked.length > 1 ? w.takeThese({ n: picked.length }) : w.takeIt()}
            </button>
          )}
          <button type="button" className="button" onClick={onClose}>
            {w.notNow()}
          </button>
        </div>
      </div>
    </Box>
  );
}

interface Found {
  pictures: PictureChoice[];
  total: number;
}

/** What the library has for words, asked a moment after the last letter. */
function useLibrary(words: string): { found: Found | undefined; wrong: string } {
  const [found, setFound] = useState<Found>();
  const [wrong, setWrong] = useState('');
  useEffect(() => {
    const leave = new AbortController();
    const timer = setTimeout(async () => {
      const path = `/api/v1/pictures?words=${encodeURIComponent(words)}`;
      const outcome = await ask<Found>(path, { signal: leave.signal });
      if (leave.signal.aborted) return;
      if (outcome.kind === 'done') setFound(outcome.value);
      setWrong(sayFailure(outcome));
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      leave.abort();
    };
  }, [words]);
  return { found, wrong };
}
