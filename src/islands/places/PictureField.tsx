/** One picture of a form: sent, or chosen from the library; taken off. Its id goes with the form. */
import { useState } from 'react';
import type { PictureChoice } from '@/core/listing/editor';
import { ChooseDialog } from '../pictures/ChooseDialog';
import { DropPlace } from '../pictures/DropPlace';
import { SendingList } from '../pictures/SendingList';
import { Thumb } from '../pictures/Thumb';
import { useSending } from '../pictures/use-sending';

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
  return (
    <div className="field">
      <span className="label">{label}</span>
      <input type="hidden" name={name} value={chosen?.id ?? ''} />
      {chosen && <Thumb picture={chosen} use="whole" width={120} />}
      <DropPlace label={chosen ? 'Send another' : 'Send a picture'} hint="" onFiles={(files) => sending.take(files.slice(0, 1))}>
        <button type="button" className="button small" onClick={() => setChoosing(true)}>
          From the library
        </button>
        {chosen && (
          <button type="button" className="button small" onClick={() => setChosen(null)}>
            Take it off
          </button>
        )}
      </DropPlace>
      <SendingList {...sending} />
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
