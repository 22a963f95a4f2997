/** Web addresses of pictures' files: `/picture/<id>/<version>/wide-640.avif`. The version rises when what is shown changes. */
import { type PictureUse, USES } from './crop';

/** The formats that pictures are sent in, the smallest first. */
export const FORMATS = ['avif', 'webp', 'jpeg'] as const;
/** One of {@link FORMATS}. */
export type PictureFormat = (typeof FORMATS)[number];
const ENDING: Record<PictureFormat, string> = { avif: 'avif', webp: 'webp', jpeg: 'jpg' };
/** The media type of each format. */
export const MIME: Record<PictureFormat, string> = { avif: 'image/avif', webp: 'image/webp', jpeg: 'image/jpeg' };

/** What the name of a picture's file says. */
export interface FileName {
  use: PictureUse;
  width: number;
  format: PictureFormat;
}

/** The web address of one file of a picture, as this version of it. */
export function pictureAddress(picture: { id: string; version: number }, { use, width, format }: FileName): string {
  return `/picture/${picture.id}/${picture.version}/${use}-${width}.${ENDING[format]}`;
}

/** Undefined for what is no name of a file. */
export function readFileName(name: string): FileName | undefined {
  const [, use, width, ending] = /^([a-z]+)-(\d{1,5})\.([a-z]+)$/.exec(name) ?? [];
  const known = USES.find((u) => u === use);
  const format = FORMATS.find((f) => ENDING[f] === ending);
  return known && format && Number(width) > 0 ? { use: known, width: Number(width), format } : undefined;
}

const IN_TEXT = /\/picture\/([0-9a-f]{8}-[0-9a-f-]{27})\b/g;
/** The pictures that stand in a text (sanitised HTML), each once. */
export function picturesInText(html: string): string[] {
  return [...new Set([...html.matchAll(IN_TEXT)].map((match) => match[1] as string))];
}
