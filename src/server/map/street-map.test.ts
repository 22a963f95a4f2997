import { existsSync } from 'node:fs';
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { EDITOR, freshDb } from '../../../tests/support/db';
import { problem } from '../../../tests/support/problem';
import { type ArchiveParts, smallTown, writeArchive } from '../../../tests/support/street-archive';
import { tileAt } from '@/core/geo/street-tiles';
import { creditOf } from './say-streets';
import { StreetMap } from './street-map';

const MIDDLE = { lat: 43.1, lng: -57.4 };
const AT = new Date(Date.UTC(2027, 2, 17));
const TOWN = smallTown(MIDDLE);

let folder: string;
let map: StreetMap;
beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'streets-'));
  map = new StreetMap(await freshDb(), folder);
});
afterEach(async () => {
  await map.stop();
  await rm(folder, { recursive: true });
});

async function fileOf(bytes: Uint8Array | string, name = 'isles.pmtiles'): Promise<string> {
  const at = path.join(folder, name);
  await writeFile(at, bytes);
  return at;
}
const add = async (bytes: Uint8Array | string, middle = MIDDLE) => map.add(await fileOf(bytes), middle, EDITOR, AT);
const changed = (part: Partial<ArchiveParts>): Buffer => writeArchive({ ...TOWN, ...part });

describe('a street map', () => {
  it('is taken in, its tiles come as they are stored, and small charts are drawn from them', async () => {
    expect(await map.current()).toBeUndefined();
    const kept = await add(writeArchive(TOWN));
    expect(kept).toMatchObject({ name: 'isles.pmtiles', minZoom: 8, maxZoom: 14 });
    expect(creditOf(kept)).toBe('Isles Survey');
    const tile = await map.tile(kept.version, tileAt(MIDDLE, 14));
    expect(tile?.packed).toBe(true);
    expect(gunzipSync(tile?.bytes ?? new Uint8Array()).length).toBeGreaterThan(100);
    // Another version, a tile beyond its edges.
    expect(await map.tile('0123456789abcdef', tileAt(MIDDLE, 14))).toBeUndefined();
    expect(await map.tile(kept.version, tileAt({ lat: 10, lng: 10 }, 14))).toBeUndefined();
    const near = { west: MIDDLE.lng - 0.006, south: MIDDLE.lat - 0.006, east: MIDDLE.lng + 0.006, north: MIDDLE.lat + 0.006 };
    const paths = await map.paths(kept, near, 270, 150);
    // A green, houses, a path, and two kinds of way with their edges.
    expect(paths?.map(({ width }) => width)).toEqual([0, 0, 1, 4.5, 3, 6.5, 4.5]);
    // What is known is drawn once.
    expect(await map.paths(kept, near, 270, 150)).toBe(paths);
    expect(await map.paths(kept, { west: 10, south: 10, east: 10.1, north: 10.1 }, 270, 150)).toBeUndefined();
  });

  it('that was damaged since draws what can be read, and the coasts where nothing can', async () => {
    const kept = await add(writeArchive(TOWN));
    const file = path.join(folder, 'maps', `${kept.version}.pmtiles`);
    const near = { west: MIDDLE.lng - 0.03, south: MIDDLE.lat - 0.03, east: MIDDLE.lng + 0.03, north: MIDDLE.lat + 0.03 };
    const whole = await readFile(file);
    await writeFile(file, Buffer.concat([whole.subarray(0, whole.length - 1500), Buffer.alloc(1500)]));
    const paths = await map.paths(kept, near, 270, 150);
    expect(paths?.length).toBeGreaterThan(0);
    await writeFile(file, whole.subarray(0, 60));
    const other = new StreetMap(await freshDb(), folder);
    expect(await other.paths(kept, near, 270, 150)).toBeUndefined();
  });

  it('is exchanged for another, and taken away', async () => {
    const first = await add(writeArchive(TOWN));
    const second = await add(changed({ maxZoom: 12 }));
    expect([first.version === second.version, (await map.current())?.maxZoom]).toEqual([false, 12]);
    expect(await readdir(path.join(folder, 'maps'))).toEqual([`${second.version}.pmtiles`]);
    expect((await map.tile(second.version, tileAt(MIDDLE, 12)))?.packed).toBe(true);
    // Off the map its file stays, and it comes back as it was.
    await map.show(false, EDITOR);
    expect([await map.current(), (await map.kept())?.off]).toEqual([undefined, true]);
    await map.show(true, EDITOR);
    expect(await map.current()).toEqual(second);
    expect((await map.remove(EDITOR))?.version).toBe(second.version);
    expect(await map.current()).toBeUndefined();
    expect(await readdir(path.join(folder, 'maps'))).toEqual([]);
    expect(await map.remove(EDITOR)).toBeUndefined();
    expect((await problem(map.show(true, EDITOR))).kind).toBe('missing');
  });

  const good = writeArchive(TOWN);
  const oldVersion = Buffer.from(good);
  oldVersion.writeUInt8(2, 7);
  const spoilt = Buffer.from(good);
  spoilt.fill(7, spoilt.length - 4000);
  it.each<[string, () => Uint8Array | string, RegExp]>([
    ['is text', () => 'Harbour Choir Evening', /no PMTiles archive/],
    ['is empty', () => '', /no PMTiles archive/],
    ['is GeoJSON', () => '{"type":"FeatureCollection"}', /This is JSON/],
    ['is a ZIP file', () => 'PK\u0003\u0004', /ZIP/],
    ['is another database', () => 'SQLite format 3\u0000', /MBTiles/],
    ['is of an old version', () => oldVersion, /version 2/],
    ['is cut off in its header', () => good.subarray(0, 60), /cut off: it has 0\.1 kB/],
    ['is cut off later', () => good.subarray(0, good.length - 10), /cut off/],
    ['has pictures', () => changed({ tileType: 2 }), /pictures of a map/],
    ['is compressed otherwise', () => changed({ tileCompression: 3 }), /compressed in a way/],
    [
      'shows another part of the earth',
      () => writeArchive(smallTown({ lat: 60, lng: 20 })),
      /from 59\.95, 19\.95 to 60\.05, 20\.05\. The site’s middle is 43\.10, -57\.40/,
    ],
    ['has other layers', () => changed({ layers: { contours: TOWN.layers.roads ?? [] } }), /lacks roads, water, earth/],
    ['has nothing there', () => changed({ layers: { roads: [], water: [], earth: [] } }), /nothing at the site’s middle/],
    ['is damaged', () => spoilt, /damaged/],
  ])('that %s is refused with what is wrong, and the one before stays', async (_, bytes, says) => {
    const before = await add(changed({ maxZoom: 11 }));
    const wrong = await problem(map.add(await fileOf(bytes(), 'other.pmtiles'), MIDDLE, EDITOR, AT));
    expect(wrong.title).toMatch(says);
    expect((await map.current())?.version).toBe(before.version);
    expect((await map.tile(before.version, tileAt(MIDDLE, 11)))?.packed).toBe(true);
  });

  it('needs a file, and a site that is somewhere', async () => {
    expect((await problem(map.add(path.join(folder, 'nothing'), MIDDLE, EDITOR, AT))).title).toContain('There is no file');
    expect((await problem(add(good, { lat: 0, lng: 0 }))).title).toContain('no middle');
    expect(existsSync(path.join(folder, 'maps'))).toBe(false);
  });
});
