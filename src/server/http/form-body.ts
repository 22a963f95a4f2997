/** What came with a request, as text that can be kept. */
import { clean } from '@/core/text/clean';
import { Problem } from '../problem';
import { serverWords } from '@/words/desk';

const w = serverWords.httpFormBody;

/** A posted form with its texts and its files' names cleaned; a Problem when the body is no form. */
export async function readForm(request: Request): Promise<FormData> {
  const sent = await request.formData().catch(() => undefined);
  if (!sent) throw new Problem('malformed', w.thisFormCouldNot());
  const form = new FormData();
  for (const [name, value] of sent) {
    if (typeof value === 'string') form.append(clean(name), clean(value));
    else form.append(clean(name), value, clean(value.name));
  }
  return form;
}

/** The text fields of a form, each bounded; files are left out. */
export function formFields(form: FormData): Record<string, string> {
  const fields: Record<string, string> = Object.create(null);
  for (const [name, value] of form) if (typeof value === 'string') fields[name] = value.slice(0, 20_000);
  return fields;
}

/** The text fields of a posted form that has no files. */
export async function readFields(request: Request): Promise<Record<string, string>> {
  return formFields(await readForm(request));
}

/** Refuses an address that holds a NUL: nothing here has one, and the database would stumble over it. */
export function checkAddress(url: URL): void {
  if (/%00/.test(url.pathname + url.search)) throw new Problem('malformed', w.thisAddressHoldsA());
}
