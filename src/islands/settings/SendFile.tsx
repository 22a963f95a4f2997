/** Sends a large file in parts: a lost connection, or a closed window, goes on where it was. What came of it is said here. */
import { type FormEvent, useRef, useState } from 'react';
import { Upload } from 'tus-js-client';
import { sayFailure, send } from '@/client/api';
import { siteAddress } from '@/client/site-root';
import { settingsWords } from '@/words/desk';

const w = settingsWords.sendFile;

/** A part has so many bytes: what a lost connection costs. */
const PART = 8 * 1024 * 1024;
/** It is tried again after so many milliseconds each. */
const RETRY = [0, 1000, 3000, 5000, 10_000];

type State =
  | { at: 'idle' }
  | { at: 'sending'; part: number }
  | { at: 'reading' }
  | { at: 'done'; said: string[] }
  | { at: 'wrong'; said: string };

export default function SendFile({ as }: { as: 'map' | 'addresses' }) {
  const [state, setState] = useState<State>({ at: 'idle' });
  const upload = useRef<Upload | null>(null);
  const form = useRef<HTMLFormElement>(null);
  const busy = state.at === 'sending' || state.at === 'reading';

  const take = async (id: string, credit: string): Promise<void> => {
    setState({ at: 'reading' });
    const outcome = await send<{ said: string[] }>('POST', `/api/v1/uploads/${id}/take`, { as, credit });
    if (outcome.kind === 'done') {
      setState({ at: 'done', said: outcome.value.said });
      form.current?.reset();
    } else setState({ at: 'wrong', said: sayFailure(outcome) });
  };

  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    event.preventDefault();
    const sent = new FormData(event.currentTarget);
    const file = sent.get('file');
    if (!(file instanceof File) || !file.name) return setState({ at: 'wrong', said: w.chooseFirst() });
    if (!file.size) return setState({ at: 'wrong', said: w.empty({ name: file.name }) });
    const credit = String(sent.get('credit') ?? '');
    setState({ at: 'sending', part: 0 });
    const next = new Upload(file, {
      endpoint: siteAddress('/api/v1/uploads'),
      chunkSize: PART,
      retryDelays: RETRY,
      removeFingerprintOnSuccess: true,
      metadata: { filename: file.name },
      onProgress: (done, total) => setState({ at: 'sending', part: done / total }),
      onError: (error) => {
        const said = 'originalResponse' in error ? error.originalResponse?.getBody() : '';
        setState({ at: 'wrong', said: said && said.length < 300 && !said.startsWith('{') ? said : w.stopped() });
      },
      onSuccess: () => void take(next.url?.split('/').at(-1) ?? '', credit),
    });
    upload.current = next;
    // The same file goes on where it was left, in this browser.
    const [before] = await next.findPreviousUploads();
    if (before) next.resumeFromPreviousUpload(before);
    next.start();
  };

  const stop = (): void => {
    void upload.current?.abort();
    setState({ at: 'idle' });
  };

  return (
    <form ref={form} onSubmit={submit} className="form mt-3 border-t border-t-rule pt-3">
      <div className="pair items-end">
        <div className="field">
          <label htmlFor={`file-${as}`}>{as === 'map' ? w.mapFile() : w.addressFile()}</label>
          <input
            id={`file-${as}`}
            name="file"
            type="file"
            disabled={busy}
            accept={as === 'map' ? '.pmtiles,.geojson,.json' : '.csv,.tsv,.txt,.geojson,.json,.ndjson,.gz'}
          />
        </div>
        <div className="field">
          <label htmlFor={`credit-${as}`}>{w.credit()}</label>
          <input id={`credit-${as}`} name="credit" maxLength={300} disabled={busy} />
        </div>
      </div>
      <div className="row">
        <button type="submit" className="button" disabled={busy}>
          {w.send()}
        </button>
        {state.at === 'sending' && (
          <>
            <progress className="w-48" max={1} value={state.part} aria-label={w.sending()} />
            <span className="quiet small tabular-nums">{w.percent({ n: Math.floor(state.part * 100) })}</span>
            <button type="button" className="button small" onClick={stop}>
              {w.stop()}
            </button>
          </>
        )}
      </div>
      <div aria-live="polite">
        {state.at === 'reading' && <p className="m-0">{w.reading()}</p>}
        {state.at === 'done' && (
          <div className="note">
            {state.said.map((line) => (
              <p key={line} className="m-0">
                {line}
              </p>
            ))}
            <p className="m-0">
              <a href={siteAddress('/desk/set-up/map')}>{w.lookAgain()}</a>
            </p>
          </div>
        )}
      </div>
      {state.at === 'wrong' && (
        <p className="note bad m-0" role="alert">
          {state.said}
        </p>
      )}
    </form>
  );
}
