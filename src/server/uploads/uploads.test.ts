import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, utimesSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { newId } from '../db/ids';
import { Uploads } from './uploads';

const root = mkdtempSync(path.join(tmpdir(), 'alm-uploads-'));
afterAll(() => rmSync(root, { recursive: true }));
let folder: string;
let uploads: Uploads;
beforeEach(() => {
  folder = path.join(root, newId());
  uploads = new Uploads(folder);
});

const HERE = 'http://almanac.example/api/v1/uploads';
const ask = (method: string, to: string, headers: Record<string, string>, body?: Uint8Array): Promise<Response> =>
  uploads.handle(new Request(to, { method, headers: { 'tus-resumable': '1.0.0', ...headers }, body: (body as BodyInit) ?? null }));
const named = (name: string): string => `filename ${Buffer.from(name).toString('base64')}`;
async function begin(length: number, name = 'isles.pmtiles'): Promise<string> {
  const response = await ask('POST', HERE, { 'upload-length': String(length), 'upload-metadata': named(name) });
  expect(response.status).toBe(201);
  return (response.headers.get('location') ?? '').split('/').at(-1) ?? '';
}
const part = (id: string, at: number, text: string): Promise<Response> =>
  ask(
    'PATCH',
    `${HERE}/${id}`,
    { 'upload-offset': String(at), 'content-type': 'application/offset+octet-stream', 'content-length': String(text.length) },
    new TextEncoder().encode(text),
  );
const offset = async (id: string): Promise<number> => Number((await ask('HEAD', `${HERE}/${id}`, {})).headers.get('upload-offset'));

describe('a file that is sent in parts', () => {
  it('goes on where it stopped, in another process too, and is taken under its own name', async () => {
    const id = await begin(10);
    expect((await part(id, 0, 'shore')).status).toBe(204);
    uploads = new Uploads(folder);
    expect(await offset(id)).toBe(5);
    // Where it does not go on exactly, nothing is written.
    expect((await part(id, 3, 'xx')).status).toBe(409);
    await expect(uploads.take(id)).rejects.toThrow('Only 0.0 kB of 0.0 kB have arrived');
    expect((await part(id, 5, ' road')).status).toBe(204);
    const taken = await uploads.take(id);
    expect([taken.name, readFileSync(taken.path, 'utf8')]).toEqual(['isles.pmtiles', 'shore road']);
    await uploads.discard(id);
    expect(readdirSync(path.join(folder, 'uploads'))).toEqual([]);
    await expect(uploads.take(id)).rejects.toThrow('no longer here');
  });
  it.each([
    ['../../almanac.db', '..-..-almanac.db'],
    ['C:\\maps\\isles.pmtiles', 'C--maps-isles.pmtiles'],
    ['..', 'file'],
    ['', 'file'],
  ])('called %j is none outside its folder', async (name, kept) => {
    const id = await begin(1, name);
    await part(id, 0, 'x');
    const taken = await uploads.take(id);
    expect([taken.name, path.dirname(taken.path)]).toEqual([kept, path.join(folder, 'uploads', `taken-${id}`)]);
  });
  it('is refused where it is larger than any map, or than the disk has room for; ids are no paths', async () => {
    const large = await ask('POST', HERE, { 'upload-length': '30000000000' });
    expect(large.status).toBe(413);
    const room = await ask('POST', HERE, { 'upload-length': '19999999999', 'upload-metadata': named('x') });
    // A disk of many terabytes takes it.
    if (room.status !== 201) expect([room.status, await room.text()]).toEqual([413, expect.stringContaining('The disk has room for')]);
    await expect(uploads.take('../../almanac')).rejects.toThrow('no longer here');
    await uploads.discard('..');
    expect(existsSync(folder)).toBe(true);
    expect((await ask('HEAD', `${HERE}/..%2f..%2fetc`, {})).status).toBe(404);
  });
  it('is open to no other site', async () => {
    const response = await ask('POST', HERE, { 'upload-length': '3', origin: 'https://elsewhere.example' });
    expect([...response.headers.keys()].filter((name) => name.startsWith('access-control'))).toEqual([]);
  });
  it('is taken away when it was left for two days, and not before', async () => {
    const [left, fresh] = [await begin(10), await begin(10)];
    const there = (): string[] => readdirSync(path.join(folder, 'uploads')).filter((name) => !name.endsWith('.json'));
    const before = new Date(Date.now() - 49 * 3_600_000);
    utimesSync(path.join(folder, 'uploads', left), before, before);
    await uploads.tidy();
    expect(there()).toEqual([fresh]);
  });
});
