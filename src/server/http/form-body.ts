/** What came with a request, as text that can be kept. */
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream } from 'node:stream/web';
import { Busboy, type BusboyHeaders } from '@fastify/busboy';
import { clean } from '@/core/text/clean';
import { Problem } from '../problem';
import { serverWords } from '@/words/desk';

const w = serverWords.httpFormBody;

/** A posted form with its texts and its files' names cleaned; a Problem when the body is no form. */
export async function readForm(request: Request): Promise<FormData> {
  const sent = await readParts(request).catch(() => undefined);
  if (!sent) throw new Problem('malformed', w.thisFormCouldNot());
  const form = new FormData();
  for (const [name, value] of sent) {
    if (typeof value === 'string') form.append(clean(name), clean(value));
    else form.append(clean(name), value, clean(value.name));
  }
  return form;
}

/** More parts than these no form of ours has; bodies are bounded before (see the middleware). */
const PARTS = { files: 40, fields: 2_000, fieldSize: 1024 * 1024, fileSize: 22 * 1024 * 1024 };

/** What HTML writes differently in the name of a field or a file. */
const asTyped = (name: string): string => name.replaceAll('%22', '"').replaceAll('%0D', '\r').replaceAll('%0A', '\n');

/**
 * A form's parts in their order. One with files is taken apart as it comes in: the platform's own way looks for boundaries in the whole body at
 * once, half a second for a picture of 20 MB, in which nobody else is answered.
 */
async function readParts(request: Request): Promise<FormData> {
  const type = request.headers.get('content-type') ?? '';
  if (!request.body || !/^multipart\/form-data\b/i.test(type)) return request.formData();
  const form = new FormData();
  const parser = new Busboy({ headers: { 'content-type': type } as BusboyHeaders, limits: PARTS });
  let cut = false;
  for (const limit of ['partsLimit', 'filesLimit', 'fieldsLimit'] as const)
    parser.on(limit, () => {
      cut = true;
    });
  parser.on('field', (name, value, _nameCut, valueCut) => {
    cut ||= valueCut;
    form.append(asTyped(name), value);
  });
  parser.on('file', (name, stream, fileName, _encoding, mime) => {
    const pieces: Uint8Array<ArrayBuffer>[] = [];
    stream.on('data', (piece: Uint8Array<ArrayBuffer>) => pieces.push(piece));
    stream.on('limit', () => {
      cut = true;
    });
    stream.on('end', () => form.append(asTyped(name), new File(pieces, asTyped(fileName ?? ''), { type: mime })));
  });
  await pipeline(Readable.fromWeb(request.body as ReadableStream), parser);
  // A form that was cut is none: what is missing would be taken for left empty.
  if (cut) throw new Error('the form has more or longer parts than are taken');
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
