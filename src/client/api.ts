/** Speaks to src/pages/api. Every failure comes back as a value that says what to do, never as an exception. */

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

export async function send<T>(method: 'POST' | 'PUT', path: string, body: unknown): Promise<Outcome<T>> {
  const isForm = body instanceof FormData;
  try {
    const response = await fetch(path, {
      method,
      body: isForm ? body : JSON.stringify(body),
      ...(isForm ? {} : { headers: { 'content-type': 'application/json' } }),
    });
    if (response.ok) return { kind: 'done', value: (await response.json()) as T };
    if (response.status === 401) return { kind: 'signed-out' };
    const problem = (await response.json().catch(() => ({}))) as { title?: string; fields?: FieldError[] } & Record<string, unknown>;
    return {
      kind: 'refused',
      status: response.status,
      title: problem.title ?? 'The site refused.',
      fields: problem.fields ?? [],
      extra: problem,
    };
  } catch {
    return { kind: 'offline' };
  }
}
