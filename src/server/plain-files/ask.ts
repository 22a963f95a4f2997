/** How the site asks itself for a page as a copy in plain files has it: through its own socket, which nobody else reaches. */
import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import http from 'node:http';
import path from 'node:path';
import { z } from 'zod';
import { parseJson } from '@/core/text/clean';

/** What a page knows of the copy that it is made for. */
export interface CopyOf {
  /** where the copy will be, without a slash at its end; undefined = nobody said */
  url?: string | undefined;
  /** where the site itself answers what a copy cannot: searches, forms; undefined = nowhere */
  server?: string | undefined;
}

/** A page as it came. */
export interface Answer {
  status: number;
  /** without its character set */
  type: string;
  location?: string | undefined;
  body: Buffer;
}

/** Asks for an address of the site: `/month/2027-03`. */
export type Ask = (address: string, copy: CopyOf) => Promise<Answer>;

const HEADER = 'x-plain-files';
const shape = z.object({ url: z.string().optional(), server: z.string().optional() });

/** What a request says of the copy that it is made for. @param operator did it come through the socket? Nobody else is believed. */
export function copyOf(headers: Headers, operator: boolean | undefined): CopyOf | undefined {
  const told = operator ? headers.get(HEADER) : null;
  return told === null ? undefined : shape.parse(parseJson(decodeURIComponent(told)));
}

const TYPES: Readonly<Record<string, string>> = { '.css': 'text/css', '.js': 'text/javascript', '.mjs': 'text/javascript' };

/** Asks the site that serves a data folder; what is built is read from where it lies. */
export function askOwn({ folder, root }: { folder: string; root: string }): Ask {
  const agent = new http.Agent({ keepAlive: true, maxSockets: 8 });
  const built = path.join(root, 'dist/client');
  return async (address, copy) => {
    const file = path.join(built, address);
    if (/^\/(_astro\/)?[\w.@-]+\.\w+$/.test(address) && existsSync(file))
      return { status: 200, type: TYPES[path.extname(file)] ?? '', body: await readFile(file) };
    return new Promise((resolve, reject) => {
      const headers = { [HEADER]: encodeURIComponent(JSON.stringify(copy)), host: 'localhost' };
      const request = http.get({ socketPath: path.join(folder, 'almanac.sock'), path: address, agent, headers }, (response) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('error', reject);
        response.on('end', () => {
          const { 'content-type': type = '', location } = response.headers;
          resolve({ status: response.statusCode ?? 500, type: type.split(';')[0] ?? '', location, body: Buffer.concat(parts) });
        });
      });
      request.on('error', reject);
    });
  };
}
