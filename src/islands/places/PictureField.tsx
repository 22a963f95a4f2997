/** One picture of a form: shown, chosen, taken off. Its id goes with the form. */
import { useRef, useState } from 'react';
import { sayFailure, sendPicture } from '@/client/api';

interface PictureFieldProps {
  name: string;
  label: string;
  picture: { id: string; alt: string } | null;
  wrong?: string | undefined;
}

export default function PictureField({ name, label, picture, wrong }: PictureFieldProps) {
  const [chosen, setChosen] = useState(picture);
  const [said, setSaid] = useState('');
  const [busy, setBusy] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const take = async (one: File | undefined): Promise<void> => {
    if (!one) return;
    setBusy(true);
    const outcome = await sendPicture(one);
    setBusy(false);
    if (file.current) file.current.value = '';
    if (outcome.kind === 'done') {
      setChosen({ id: outcome.value.id, alt: outcome.value.alt });
      setSaid('');
    } else setSaid(sayFailure(outcome));
  };
  return (
    <div className="field">
      <span className="label">{label}</span>
      <input type="hidden" name={name} value={chosen?.id ?? ''} />
      <div className="row">
        {chosen && <img src={`/picture/${chosen.id}/320`} alt={chosen.alt} style={{ width: 120, height: 'auto' }} />}
        <label className="button small file-button">
          {busy ? 'One moment …' : chosen ? 'Choose another' : 'Choose a picture'}
          <input ref={file} type="file" accept="image/*" disabled={busy} onChange={(e) => void take(e.target.files?.[0])} />
        </label>
        {chosen && (
          <button type="button" className="button small" onClick={() => setChosen(null)}>
            Take it off
          </button>
        )}
      </div>
      <span role="status" className={said ? 'wrong' : 'hint'}>
        {said || wrong}
      </span>
    </div>
  );
}
