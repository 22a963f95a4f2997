/**
 * An open geocoder, asked by the server alone: for so long, for so many bytes, and never at an address of a private network unless the operator
 * allows it. What it said is kept for a while.
 */
import { lookup as lookUp } from 'node:dns';
import { request as httpRequest } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { BlockList, isIP, type LookupFunction } from 'node:net';
import { LRUCache } from 'lru-cache';
import type { FoundPlace } from '@/core/geo/gazetteer';
import type { Point } from '@/core/geo/geo';
import { fold } from '@/core/text/text';
import { readGeocoded } from './geocoded';
import { serverWords } from '@/words/desk';

const w = serverWords.geocoder;

/** Whoever types waits no longer for it, in ms. */
const PATIENCE = 2500;
const MOST_BYTES = 512 * 1024;
const MOST_PLACES = 6;
const MOST_LEADS = 3;
const KEPT = 500;
const KEPT_MS = 60 * 60 * 1000;

/** What a geocoder found, or why it found nothing, in words. */
export interface Geocoded {
  places: FoundPlace[];
  wrong: string;
}

const PRIVATE = new BlockList();
for (const [net, bits] of [
  ['0.0.0.0', 8],
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.0.0.0', 24],
  ['192.168.0.0', 16],
  ['198.18.0.0', 15],
  ['224.0.0.0', 3],
] as const)
  PRIVATE.addSubnet(net, bits, 'ipv4');
for (const [net, bits] of [
  ['::', 127],
  ['64:ff9b::', 96],
  ['fc00::', 7],
  ['fe80::', 10],
  ['ff00::', 8],
] as const)
  PRIVATE.addSubnet(net, bits, 'ipv6');

/** Is this an address of a private network, of this machine, or of nobody? An IPv4 address may stand within an IPv6 one. */
export function isPrivate(address: string): boolean {
  const bare = address.replace(/^\[|\]$/g, '').replace(/%.*$/, '');
  const within = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(bare)?.[1];
  const family = isIP(within ?? bare);
  if (!family || (family === 6 && /^::ffff:/i.test(bare))) return true;
  return PRIVATE.check(within ?? bare, family === 4 ? 'ipv4' : 'ipv6');
}

class Refused extends Error {}

/** Looks a name up and lets only public addresses through: checked when it connects, so that a name cannot be one thing and then another. */
const guarded =
  (allowed: boolean): LookupFunction =>
  (host, options, done) => {
    lookUp(host, { ...options, all: true }, (error, addresses) => {
      const found = Array.isArray(addresses) ? addresses : [];
      const first = found[0];
      if (error) done(error, '', 0);
      else if (!first || (!allowed && found.some(({ address }) => isPrivate(address)))) done(new Refused(), '', 0);
      else if (options.all) done(null, found);
      else done(null, first.address, first.family);
    });
  };

/** One address asked: its text, or where it leads on to. */
function ask(url: URL, allowed: boolean, signal: AbortSignal): Promise<{ status: number; text: string; to: string }> {
  return new Promise((resolve, reject) => {
    const host = url.hostname.replace(/^\[|\]$/g, '');
    if (isIP(host) && !allowed && isPrivate(host)) {
      reject(new Refused());
      return;
    }
    const begin = url.protocol === 'https:' ? httpsRequest : httpRequest;
    const headers = { accept: 'application/json', 'user-agent': 'PlainAlmanac' };
    const asked = begin(url, { headers, signal, lookup: guarded(allowed) }, (response) => {
      let text = '';
      let bytes = 0;
      response.setEncoding('utf8');
      response.on('data', (part: string) => {
        bytes += Buffer.byteLength(part);
        if (bytes > MOST_BYTES) response.destroy(new SyntaxError('too long'));
        else text += part;
      });
      response.on('error', reject);
      response.on('end', () => resolve({ status: response.statusCode ?? 0, text, to: response.headers.location ?? '' }));
    });
    asked.on('error', reject);
    asked.end();
  });
}

/** Asks the service that a site names. */
export class Geocoder {
  private readonly kept = new LRUCache<string, FoundPlace[]>({ max: KEPT, ttl: KEPT_MS });

  /** @param allowsPrivate may it be in a private network? The operator's matter (`ALMANAC_GEOCODER_PRIVATE=1`) */
  constructor(private readonly allowsPrivate: boolean) {}

  /** Places that words may mean, near a point first where the service knows how. Never throws: what went wrong is said. */
  async find(service: string, words: string, near: Point): Promise<Geocoded> {
    const key = `${service} ${fold(words)} ${near.lat.toFixed(1)} ${near.lng.toFixed(1)}`;
    const known = this.kept.get(key);
    if (known) return { places: known, wrong: '' };
    const host = new URL(service).hostname;
    const signal = AbortSignal.timeout(PATIENCE);
    try {
      const places = await this.read(addressFor(service, words, near), signal);
      if (!places) return { places: [], wrong: w.nonsense({ host }) };
      this.kept.set(key, places);
      return { places, wrong: '' };
    } catch (error) {
      if (signal.aborted) return { places: [], wrong: w.slow({ host }) };
      if (error instanceof Refused) return { places: [], wrong: w.privateNetwork({ host }) };
      return { places: [], wrong: error instanceof SyntaxError ? w.nonsense({ host }) : w.noAnswer({ host }) };
    }
  }

  private async read(first: URL, signal: AbortSignal): Promise<FoundPlace[] | undefined> {
    let url = first;
    for (let leads = 0; leads <= MOST_LEADS; leads++) {
      const { status, text, to } = await ask(url, this.allowsPrivate, signal);
      if (status === 200) return readGeocoded(JSON.parse(text), MOST_PLACES);
      if (status < 300 || status > 399 || !URL.canParse(to, url)) throw new Error(String(status));
      url = new URL(to, url);
      if (url.protocol !== 'https:' && url.protocol !== 'http:') throw new Refused();
    }
    throw new Error('leads around');
  }
}

function addressFor(service: string, words: string, { lat, lng }: Point): URL {
  const url = new URL(service);
  for (const [name, value] of [
    ['q', words],
    ['limit', String(MOST_PLACES)],
    ['lat', lat.toFixed(3)],
    ['lon', lng.toFixed(3)],
    ['lang', 'en'],
  ] as const)
    url.searchParams.set(name, value);
  return url;
}
