/** A picture as a form sends it. */
import { readForm } from '../http/form-body';
import { invalid } from '../problem';
import { serverWords } from '@/words/desk';

const w = serverWords.picturesPostedPictures;

/** Reads a posted picture. Throws a Problem at the field `picture`. */
export async function postedPicture(request: Request): Promise<{ bytes: Buffer; name: string; alt: string; credit: string }> {
  const form = await readForm(request).catch(() => undefined);
  const file = form?.get('file');
  if (!form || !(file instanceof File)) throw invalid('picture', w.chooseAPictureFirst());
  const bytes = Buffer.from(await file.arrayBuffer());
  return { bytes, name: file.name, alt: String(form.get('alt') ?? ''), credit: String(form.get('credit') ?? '') };
}
