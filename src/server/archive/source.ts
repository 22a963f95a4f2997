/** An archive as it lies on disk: one ZIP file, or its document with the folder of pictures beside it. */
import { open, readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { ARCHIVE_DOCUMENT, PICTURE_FILE } from '@/core/exchange/archive';
import { parseJson } from '@/core/text/clean';
import { Problem } from '../problem';
import { openZip } from './zip';
import { MAX_PICTURE_BYTES } from '../pictures/take-in';

/** The document is read as one text. */
const MOST_DOCUMENT_BYTES = 400 * 1024 * 1024;

/** Where an archive is read from: its lists, entry by entry. */
export interface ArchiveSource {
  document: unknown;
  /** the bytes of a picture's file; undefined where the archive has none of that name, or one that is too large */
  picture: (file: string) => Promise<Buffer | undefined>;
  close: () => void;
}

/** Opens an archive. Throws a Problem that says what is wrong with the file. */
export async function openArchive(file: string): Promise<ArchiveSource> {
  const start = Buffer.alloc(4);
  try {
    const handle = await open(file);
    await handle.read(start, 0, 4, 0).finally(() => handle.close());
  } catch {
    throw new Problem('invalid', `The file ${file} cannot be read.`);
  }
  return start.toString('latin1') === 'PK\u0003\u0004' ? openZipped(file) : openFolder(file);
}

function readDocument(text: string): unknown {
  try {
    return parseJson(text);
  } catch {
    throw new Problem('invalid', `This is no archive: its ${ARCHIVE_DOCUMENT} is no JSON.`);
  }
}

async function openFolder(file: string): Promise<ArchiveSource> {
  const { size } = await stat(file);
  if (size > MOST_DOCUMENT_BYTES) throw new Problem('invalid', 'The document is larger than 400 MB.');
  const document = readDocument(await readFile(file, 'utf8'));
  const picture = async (name: string): Promise<Buffer | undefined> => {
    if (!PICTURE_FILE.test(name)) return undefined;
    const at = path.join(path.dirname(file), name);
    const there = await stat(at).catch(() => undefined);
    return there?.isFile() && there.size <= MAX_PICTURE_BYTES ? readFile(at) : undefined;
  };
  return { document, picture, close: () => undefined };
}

async function openZipped(file: string): Promise<ArchiveSource> {
  const zip = await openZip(file);
  try {
    const bytes = await zip.bytes(ARCHIVE_DOCUMENT, MOST_DOCUMENT_BYTES);
    if (!bytes) throw new Problem('invalid', `This is no archive: it holds no ${ARCHIVE_DOCUMENT} of at most 400 MB.`);
    const document = readDocument(bytes.toString('utf8'));
    const picture = async (name: string): Promise<Buffer | undefined> =>
      PICTURE_FILE.test(name) ? zip.bytes(name, MAX_PICTURE_BYTES) : undefined;
    return { document, picture, close: zip.close };
  } catch (error) {
    zip.close();
    if (error instanceof Problem) throw error;
    throw new Problem('invalid', `This ZIP file cannot be read: ${error instanceof Error ? error.message : 'it is broken'}.`);
  }
}
