/** Speaks to src/pages/api. Every failure comes back as a value that says what to do, never as an exception. */

import { siteAddress } from '@/client/site-root';
import { clientWords } from '@/words/desk';

const w = clientWords.api;

export interface FieldError {
  field: string;
  message: string;
}

export type Outcome<T> =
  | { kind: 'done'; value: T }
  /** no answer: the connection, not the input */
  | { kind: 'offline' }
  /** the session has ended */
  | { kind: 'signed-out' }
  | { kind: 'refused'; status: number; title: string; fields: FieldError[]; extra: Record<string, unknown> };

export function send<T>(method: 'POST' | 'PUT', path: string, body: unknown): Promise<Outcome<T>> {
  if (body instanceof FormData) return ask(path, { method, body });
  return ask(path, { method, body: JSON.stringify(body), headers: { 'content-type': 'application/json' } });
}

/** Reads, unless a request says otherwise. */
export async function ask<T>(path: string, request: RequestInit = {}): Promise<Outcome<T>> {
  try {
    const response = await fetch(siteAddress(path), request);
    if (response.ok) return { kind: 'done', value: (await response.json()) as T };
    if (response.status === 401) return { kind: 'signed-out' };
    const problem = (await response.json().catch(() => ({}))) as { title?: string; fields?: FieldError[] } & Record<string, unknown>;
    return {
      kind: 'refused',
      status: response.status,
      title: problem.title ?? w.theSiteRefused(),
      fields: problem.fields ?? [],
      extra: problem,
    };
  } catch {
    return { kind: 'offline' };
  }
}

export interface SentPicture {
  id: string;
  alt: string;
  credit?: string;
  width: number;
  height: number;
}

/** Sends a picture's bytes. */
export function sendPicture(file: File): Promise<Outcome<SentPicture>> {
  const form = new FormData();
  form.set('file', file);
  return send('POST', '/api/v1/pictures', form);
}

/** Makes a tag by its name, or finds the one that has it already. */
export const makeTag = (name: string): Promise<Outcome<{ id: string; name: string }>> => send('POST', '/api/v1/tags', { name });

/** Why a request came to nothing, in words; empty when it did not. */
export function sayFailure(outcome: Outcome<unknown>): string {
  if (outcome.kind === 'refused') return outcome.title;
  if (outcome.kind === 'offline') return w.noConnectionNothingWas();
  return outcome.kind === 'signed-out' ? w.yourSessionHasEnded() : '';
}
