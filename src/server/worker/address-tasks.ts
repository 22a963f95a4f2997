/** Reads a file of addresses: a table, or GeoJSON points, one a line or in a collection; gathered by streets. */
import { readFileSync, statSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import Papa from 'papaparse';
import { z } from 'zod';
import { separatorOf } from '@/core/exchange/csv-columns';
import { decode } from '@/core/exchange/decode';
import { ADDRESS_FIELDS, addressColumns, type AddressField, type AddressProblem, readAddress } from '@/core/geo/address-rows';
import { type AddressStreet, StreetGatherer } from '@/core/geo/address-streets';
import { distanceKm, type Point } from '@/core/geo/geo';
import { townNear } from './world-tasks';
import { serverWords } from '@/words/desk';

const w = serverWords.addressFile;

/** A file of addresses that is to be read. */
export interface AddressTask {
  task: 'addresses';
  path: string;
  /** the folder of what is known of the world: rows without a town are told the nearest */
  world: string;
  /** where the site is */
  middle: Point;
  /** headings that somebody named for fields */
  columns: Partial<Record<AddressField, string>>;
}

/** What was found in a file of addresses. */
export interface AddressSummary {
  /** does `line` count lines of a table, or features? */
  unit: 'line' | 'feature';
  addresses: number;
  streets: number;
  /** other flats of houses that were there already */
  doubles: number;
  /** rows whose town was guessed from where they lie */
  guessed: number;
  leftOut: number;
  /** the first of those that were left out */
  wrong: { line: number; reason: string }[];
  /** how far from the site its nearest address lies, in kilometres */
  nearest: number;
  /** which heading was taken for which field */
  columns: [heading: string, field: AddressField][];
}

/** Parts of its answer: what was found, and then the streets. */
export type AddressPart =
  | { part: 'address-summary'; summary: AddressSummary }
  | { part: 'address-streets'; streets: AddressStreet[] }
  | { part: 'refused'; reason: string };

/** The most bytes of a file, unpacked, and the most rows. */
const MOST_BYTES = 400e6;
const MOST_ROWS = 2_000_000;
/** So many rows that were left out are named. */
const MOST_NAMED = 50;
const STREETS_A_PART = 400;

/** The file is none that can be read; the message says what is wrong. */
class Refused extends Error {}

const REASONS: Readonly<Record<AddressProblem | 'no-point' | 'no-json', () => string>> = {
  'no-street': w.noStreet,
  'no-position': w.noPosition,
  'not-degrees': w.notDegrees,
  'too-long': w.tooLong,
  'no-point': w.noPoint,
  'no-json': w.noJson,
};

/** What a file says, row by row. */
interface Row {
  line: number;
  cells: Partial<Record<AddressField, string>> | 'no-point' | 'no-json';
}

function textOf(path: string): string {
  const { size } = statSync(path);
  if (size > MOST_BYTES) throw new Refused(w.tooLarge());
  let bytes: Uint8Array = readFileSync(path);
  const begins = Buffer.from(bytes.subarray(0, 8)).toString('latin1');
  if (begins.startsWith('PK')) throw new Refused(w.aZip());
  if (begins.startsWith('SQLite')) throw new Refused(w.aDatabase());
  if (begins.startsWith('\u001f\u008b')) {
    try {
      bytes = gunzipSync(bytes, { maxOutputLength: MOST_BYTES });
    } catch {
      throw new Refused(w.notUnpacked());
    }
  }
  // RFC 8142 puts a record separator before each line of JSON.
  return decode(bytes).text.replaceAll('\u001e', '');
}

const feature = z.object({
  geometry: z.object({ type: z.literal('Point'), coordinates: z.tuple([z.number(), z.number()]).rest(z.number()) }),
  properties: z.record(z.string(), z.unknown()),
});

/** Reads features, each by the names that its properties have. */
class Features {
  readonly #known = new Map<string, (AddressField | undefined)[]>();

  constructor(private readonly chosen: AddressTask['columns']) {}

  cellsOf(json: unknown): Row['cells'] {
    const { success, data } = feature.safeParse(json);
    if (!success) return 'no-point';
    const names = Object.keys(data.properties);
    const key = names.join('\n');
    if (!this.#known.has(key)) this.#known.set(key, addressColumns(names, this.chosen));
    const cells: Partial<Record<AddressField, string>> = {};
    for (const [i, field] of (this.#known.get(key) ?? []).entries()) {
      const value = data.properties[names[i] as string];
      if (field && (typeof value === 'string' || typeof value === 'number')) cells[field] = String(value);
    }
    const [lng, lat] = data.geometry.coordinates;
    return { ...cells, lat: String(lat), lng: String(lng) };
  }

  columns(): [string, AddressField][] {
    return [...this.#known].flatMap(([key, fields]) =>
      key.split('\n').flatMap((name, i): [string, AddressField][] => (fields[i] ? [[name, fields[i]]] : [])),
    );
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

function* linesOf(text: string): Generator<string> {
  for (let at = 0; at < text.length; ) {
    const end = text.indexOf('\n', at);
    yield text.slice(at, end === -1 ? undefined : end);
    at = end === -1 ? text.length : end + 1;
  }
}

interface Json {
  type?: unknown;
  features?: unknown;
}

/** The rows of a file of features: one a line, or all of them in a collection. */
function featureRows(text: string, features: Features): Pick<AddressSummary, 'unit'> & { rows: Iterable<Row> } {
  // A collection may stand in one line, too: no file is parsed twice.
  const first = parsed(linesOf(text).next().value ?? '') as Json | undefined;
  if (first?.type === 'Feature') return { unit: 'line', rows: lineRows(text, features) };
  const all = first ?? (parsed(text) as Json | undefined);
  if (!all || !Array.isArray(all.features)) throw new Refused(all ? w.noCollection() : w.brokenJson());
  return { unit: 'feature', rows: all.features.map((json, i) => ({ line: i + 1, cells: features.cellsOf(json) })) };
}

function* lineRows(text: string, features: Features): Generator<Row> {
  let line = 0;
  for (const piece of linesOf(text)) {
    line++;
    const bare = piece.trim();
    if (!bare) continue;
    const json = parsed(bare);
    yield { line, cells: json === undefined ? 'no-json' : features.cellsOf(json) };
  }
}

/** The rows of a table, all at once: Papa Parse calls for each. */
function tableRows(text: string, chosen: AddressTask['columns'], take: (row: Row) => void): AddressSummary['columns'] {
  let columns: (AddressField | undefined)[] | undefined;
  let headings: string[] = [];
  let line = 1;
  let cursor = 0;
  Papa.parse<string[]>(text, {
    delimiter: separatorOf(text),
    step: ({ data, meta }) => {
      if (!columns) {
        headings = data.map((cell) => cell.trim());
        columns = columnsFor(headings, chosen);
      } else if (data.some((cell) => cell.trim() !== '')) {
        const cells: Partial<Record<AddressField, string>> = {};
        for (const [i, field] of columns.entries()) if (field) cells[field] = data[i] ?? '';
        take({ line, cells });
      }
      // Cells may hold line ends: the file's lines are counted, not the rows.
      for (let at = text.indexOf('\n', cursor); at !== -1 && at < meta.cursor; at = text.indexOf('\n', at + 1)) line++;
      cursor = meta.cursor;
    },
  });
  if (!columns) throw new Refused(w.empty());
  return columns.flatMap((field, i): [string, AddressField][] => (field ? [[headings[i] as string, field]] : []));
}

function columnsFor(headings: readonly string[], chosen: AddressTask['columns']): (AddressField | undefined)[] {
  const columns = addressColumns(headings, chosen);
  const there = headings.filter(Boolean).slice(0, 30).join(', ');
  const absent = ADDRESS_FIELDS.filter((field) => chosen[field] !== undefined && !columns.includes(field));
  if (absent.length) throw new Refused(w.noSuchColumn({ name: absent.map((field) => chosen[field]).join(', '), there }));
  const lacks = [
    ...(columns.includes('lat') ? [] : ['lat']),
    ...(columns.includes('lng') ? [] : ['lng']),
    ...(columns.includes('street') || columns.includes('address') ? [] : ['street']),
  ];
  if (lacks.length)
    throw new Refused(w.lacksColumns({ lacks: lacks.join(', '), there, example: lacks.map((one) => `${one}=…`).join(',') }));
  return columns;
}

/** Reads a file; what is wrong with it comes as one part that says so. */
export function* performAddresses({ path, world, middle, columns: chosen }: AddressTask): Generator<AddressPart> {
  const gatherer = new StreetGatherer((point) => townNear(world, point));
  const summary: AddressSummary = {
    unit: 'line',
    addresses: 0,
    streets: 0,
    doubles: 0,
    guessed: 0,
    leftOut: 0,
    wrong: [],
    nearest: Number.POSITIVE_INFINITY,
    columns: [],
  };
  const take = ({ line, cells }: Row): void => {
    if (summary.addresses + summary.doubles + summary.leftOut >= MOST_ROWS) throw new Refused(w.tooMany({ most: MOST_ROWS }));
    const row = typeof cells === 'string' ? cells : readAddress(cells);
    if (typeof row === 'string') {
      summary.leftOut++;
      if (summary.wrong.length < MOST_NAMED) summary.wrong.push({ line, reason: REASONS[row]() });
      return;
    }
    summary.nearest = Math.min(summary.nearest, distanceKm(row, middle));
    if (gatherer.add(row)) summary.addresses++;
    else summary.doubles++;
  };
  try {
    const text = textOf(path);
    if (/^\s*[{[]/.test(text.slice(0, 100))) {
      const features = new Features(chosen);
      const { unit, rows } = featureRows(text, features);
      summary.unit = unit;
      for (const row of rows) take(row);
      summary.columns = features.columns();
    } else summary.columns = tableRows(text, chosen, take);
    if (!summary.addresses)
      throw new Refused(summary.wrong[0] ? w.noneIsAnAddress({ n: summary.leftOut, reason: summary.wrong[0].reason }) : w.empty());
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    yield { part: 'refused', reason: error.message };
    return;
  }
  const streets = [...gatherer.streets()];
  yield { part: 'address-summary', summary: { ...summary, guessed: gatherer.guessed, streets: streets.length } };
  for (let at = 0; at < streets.length; at += STREETS_A_PART)
    yield { part: 'address-streets', streets: streets.slice(at, at + STREETS_A_PART) };
}
