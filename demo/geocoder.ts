/** An open geocoder's stand-in: answers from the isles' gazetteer, or does what such a service does on a bad day. */
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { type Gazetteer, type GazetteerEntry, searchGazetteer } from '@/core/geo/gazetteer';
import { GAZETTEER } from './gazetteer';

/** What it does instead of answering well. */
export type BadDay = 'hangs' | 'nonsense' | 'page' | 'fails' | 'endless' | { leadsTo: string };

/** A stand-in that listens. */
export interface StandIn {
  /** what the site's setting names */
  url: string;
  /** what it was asked for, in order */
  asked: string[];
  close: () => Promise<void>;
}

/** What the isles' own gazetteer lacks: a street that was built since. */
const SINCE: GazetteerEntry = {
  kind: 'street',
  name: 'Signal Terrace',
  town: 'Port Amble',
  island: '',
  line: [
    { lat: 43.192, lng: -57.468 },
    { lat: 43.194, lng: -57.462 },
  ],
  numbers: [1, 19],
};

function answerFor(words: string): unknown {
  const known: Gazetteer = { format: 1, entries: [...GAZETTEER.entries, SINCE] };
  const features = searchGazetteer(words, known, 5).map(({ entry, number, point, exactness }) => ({
    type: 'Feature',
    geometry: { type: 'Point', coordinates: [point.lng, point.lat] },
    properties: {
      ...(entry.kind === 'street' ? { street: entry.name, ...(number ? { housenumber: String(number) } : {}) } : { name: entry.name }),
      ...(entry.kind === 'town' ? {} : { city: entry.town }),
      state: 'Kittiwick Isles',
      countrycode: 'CA',
      postcode: 'K1A 0B1',
      type: exactness === 'town' ? 'city' : exactness,
    },
  }));
  return { type: 'FeatureCollection', features };
}

/** Serves it on a free port of this machine. */
export async function serveGeocoder(bad?: BadDay): Promise<StandIn> {
  const asked: string[] = [];
  const server: Server = createServer((request, response) => {
    const url = new URL(request.url ?? '/', 'http://geocoder.example');
    asked.push(url.searchParams.get('q') ?? '');
    if (bad === 'hangs') return;
    if (bad === 'fails') response.writeHead(500).end();
    else if (bad === 'nonsense') response.end('{"type":"Feature');
    else if (bad === 'page') response.end(JSON.stringify({ features: ['Welcome', { geometry: null }] }));
    else if (bad === 'endless') response.end(`"${'x'.repeat(2_000_000)}"`);
    else if (bad) response.writeHead(302, { location: bad.leadsTo }).end();
    else response.writeHead(200, { 'content-type': 'application/json' }).end(JSON.stringify(answerFor(asked.at(-1) ?? '')));
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const close = (): Promise<void> =>
    new Promise((done) => {
      server.close(() => done());
      server.closeAllConnections();
    });
  return { url: `http://127.0.0.1:${(server.address() as AddressInfo).port}/api`, asked, close };
}
