/** One picture of a form: sent, or chosen from the library; taken off. Its id goes with the form. */
import { useEffect, useRef, useState } from 'react';
import type { PictureChoice } from '@/core/listing/editor';
import { ChooseDialog } from '../pictures/ChooseDialog';
import { DropPlace } from '../pictures/DropPlace';
import { SendingList } from '../pictures/SendingList';
import { Thumb } from '../pictures/Thumb';
import { useSending } from '../pictures/use-sending';
import { placesWords } from '@/words/desk';

const w = placesWords.pictureField;

interface PictureFieldProps {
  name: string;
  label: string;
  picture: PictureChoice | null;
  wrong?: string | undefined;
}

export default function PictureField({ name, label, picture, wrong }: PictureFieldProps) {
  const [chosen, setChosen] = useState(picture);
  const [choosing, setChoosing] = useState(false);
  const sending = useSending(setChosen);
  const busy = sending.sending.some((one) => one.state === 'waiting' || one.state === 'sending' || one.state === 'made');
  const field = useRef<HTMLInputElement>(null);
  const waiting = useRef<HTMLElement | null>(null);
  const [held, setHeld] = useState(false);
  // A form that is sent while its picture is on the way waits for it: else the picture would be lost without a word.
  useEffect(() => {
    const form = field.current?.form;
    if (!form || !busy) return;
    const hold = (event: SubmitEvent): void => {
      event.preventDefault();
      waiting.current = event.submitter;
      setHeld(true);
    };
    form.addEventListener('submit', hold);
    return () => form.removeEventListener('submit', hold);
  }, [busy]);
  useEffect(() => {
    if (busy || !held) return;
    setHeld(false);
    // What was refused is looked at first; the press stands for nothing then.
    if (!sending.sending.some((one) => one.state === 'refused')) field.current?.form?.requestSubmit(waiting.current);
  }, [busy, held, sending.sending]);
  return (
    <div className="field">
      <span className="label">{label}</span>
      <input type="hidden" ref={field} name={name} value={chosen?.id ?? ''} />
      {chosen && <Thumb picture={chosen} use="whole" width={120} />}
      <DropPlace label={chosen ? w.sendAnother() : w.sendAPicture()} hint="" onFiles={(files) => sending.take(files.slice(0, 1))}>
        <button type="button" className="button small" onClick={() => setChoosing(true)}>
          {w.fromTheLibrary()}
        </button>
        {chosen && (
          <button type="button" className="button small" onClick={() => setChosen(null)}>
            {w.takeItOff()}
          </button>
        )}
      </DropPlace>
      <SendingList {...sending} />
      {held && (
        <span className="hint" role="status">
          {w.savedAsSoonAs()}
        </span>
      )}
      {wrong && <span className="wrong">{wrong}</span>}
      {choosing && (
        <ChooseDialog
          chosen={chosen ? [chosen.id] : []}
          several={false}
          onClose={() => setChoosing(false)}
          onChoose={([one]) => {
            if (one) setChosen(one);
            setChoosing(false);
          }}
        />
      )}
    </div>
  );
}
