/** A Desk page's own form: posted to the page itself, run in one transaction, answered by the page with what was typed. */
import type { AstroGlobal } from 'astro';
import type { Db } from '../db/client';
import { tryForm } from './endpoint';
import { statusOf } from './problem';
import { formFields, readForm } from './form-body';

/** How a page's form went: what to say, and what is wrong at which field. */
export interface FormState {
  /** what to say after it worked; undefined when it did not, or nothing was posted */
  said: string | undefined;
  /** what was typed, when it has to be mended */
  fields: Record<string, string> | undefined;
  errors: Map<string, string> | undefined;
  wrong: string;
}

/** Runs a posted form. A Problem is shown at its fields, with nothing lost; `run` returns what to say when it worked, '' when it wrote nothing. */
export function handleForm(
  page: Readonly<AstroGlobal>,
  run: (tx: Db, fields: Record<string, string>, form: FormData) => Promise<string>,
): Promise<FormState> {
  return handleLongForm(page, (fields, form) => page.locals.rt.db.transaction((tx) => run(tx, fields, form)));
}

/** The same for what reads a long time before it writes, or waits for a job: its transactions are its own, and short. */
export async function handleLongForm(
  page: Readonly<AstroGlobal>,
  run: (fields: Record<string, string>, form: FormData) => Promise<string>,
): Promise<FormState> {
  if (page.request.method !== 'POST') return { said: undefined, fields: undefined, errors: undefined, wrong: '' };
  const form = await readForm(page.request);
  const fields = formFields(form);
  const { value, problem } = await tryForm(() => run(fields, form));
  if (!problem) {
    // What was only looked at, as a sample is with every letter, changes nothing that is remembered.
    if (value) await page.locals.rt.contentChanged();
    return { said: value, fields: undefined, errors: undefined, wrong: '' };
  }
  page.response.status = statusOf(problem);
  return { said: undefined, fields, errors: new Map(problem.fields.map((f) => [f.field, f.message])), wrong: problem.title };
}

type Speaker = Pick<App.Locals, 'rt' | 'actor'>;

/** What makes a sentence in an address the site's own, said to one person: an address from elsewhere puts no words into its mouth. */
const sealOf = ({ rt, actor }: Speaker, said: string): string => rt.sign(`said ${actor?.id ?? ''} ${said}`);

/** Back to a page that says how it went, and offers to take it back where it can be. */
export function saying(locals: Speaker, path: string, said: string, undo = ''): string {
  const query = new URLSearchParams({ said, seal: sealOf(locals, said), ...(undo ? { undo } : {}) });
  return `${path}${path.includes('?') ? '&' : '?'}${query}`;
}

/** What the address has to say: a sentence that the site itself sealed for this person; undefined for anything else. */
export function saidIn(locals: Speaker, { searchParams }: URL): string | undefined {
  const said = searchParams.get('said');
  return said && searchParams.get('seal') === sealOf(locals, said) ? said : undefined;
}
