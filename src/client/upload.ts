/** Sends files with their progress, which fetch cannot say. */
import { siteAddress } from '@/client/site-root';
import type { FieldError, Outcome } from './api';
import { clientWords } from '@/words/desk';

const w = clientWords.upload;

/** What the site takes at most: said here too, since a connection that is cut while sending tells nobody why. */
const MOST_BYTES = 20 * 1024 * 1024;
const TOO_LARGE = w.theFileIsLarger();

/** Posts a file as `file`; `onPart` hears how much of it has gone out, 0 to 1. */
export function sendFile<T>(path: string, file: File, onPart: (part: number) => void): Promise<Outcome<T>> {
  if (file.size > MOST_BYTES) return Promise.resolve({ kind: 'refused', status: 413, title: TOO_LARGE, fields: [], extra: {} });
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    request.open('POST', siteAddress(path));
    request.responseType = 'text';
    request.upload.onprogress = (event) => onPart(event.lengthComputable ? event.loaded / event.total : 0);
    request.onerror = () => resolve({ kind: 'offline' });
    request.onload = () => resolve(outcomeOf<T>(request.status, request.responseText));
    const form = new FormData();
    form.set('file', file);
    request.send(form);
  });
}

function outcomeOf<T>(status: number, text: string): Outcome<T> {
  if (status === 401) return { kind: 'signed-out' };
  let said: unknown;
  try {
    said = JSON.parse(text);
  } catch {
    // A server in front of ours may answer with a page.
    said = undefined;
  }
  if (status >= 200 && status < 300 && said !== undefined) return { kind: 'done', value: said as T };
  const problem = (said ?? {}) as { title?: string; fields?: FieldError[] } & Record<string, unknown>;
  const title = problem.title ?? (status === 413 ? TOO_LARGE : w.theSiteRefused());
  return { kind: 'refused', status, title, fields: problem.fields ?? [], extra: problem };
}
