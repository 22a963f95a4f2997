/** A store of objects in memory that speaks as much of S3 as a site asks: put, get, list, delete. */
import { createServer, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';

export interface ObjectService {
  url: string;
  objects: Map<string, Buffer>;
  close: () => void;
}

async function bodyOf(request: IncomingMessage): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of request) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

/** Bodies that are sent in signed pieces: `size;signature`, the piece, and so on. */
function unchunked(body: Buffer): Buffer {
  const parts: Buffer[] = [];
  for (let at = 0; at < body.length; ) {
    const line = body.indexOf('\r\n', at);
    const size = Number.parseInt(body.toString('latin1', at, line), 16);
    if (!size) break;
    parts.push(body.subarray(line + 2, line + 2 + size));
    at = line + 2 + size + 2;
  }
  return Buffer.concat(parts);
}

export async function objectService(): Promise<ObjectService> {
  const objects = new Map<string, Buffer>();
  const xml = (inside: string): string => `<?xml version="1.0" encoding="UTF-8"?>${inside}`;
  const server = createServer(async (request, response) => {
    const url = new URL(request.url ?? '/', 'http://store');
    const body = await bodyOf(request);
    const [, bucket = '', ...rest] = decodeURIComponent(url.pathname).split('/');
    const key = rest.join('/');
    const answer = (status: number, text: string | Buffer = ''): void => void response.writeHead(status).end(text);
    if (request.method === 'PUT') {
      objects.set(`${bucket}/${key}`, String(request.headers['content-encoding']).includes('aws-chunked') ? unchunked(body) : body);
      return answer(200);
    }
    if (request.method === 'POST' && url.searchParams.has('delete')) {
      for (const [, one] of body.toString().matchAll(/<Key>([^<]*)<\/Key>/g)) objects.delete(`${bucket}/${one}`);
      return answer(200, xml('<DeleteResult/>'));
    }
    if (request.method === 'GET' && !key) {
      const prefix = `${bucket}/${url.searchParams.get('prefix') ?? ''}`;
      const names = [...objects.keys()].filter((name) => name.startsWith(prefix));
      const listed = names.map((name) => `<Contents><Key>${name.slice(bucket.length + 1)}</Key></Contents>`);
      return answer(200, xml(`<ListBucketResult><KeyCount>${names.length}</KeyCount>${listed.join('')}</ListBucketResult>`));
    }
    const found = objects.get(`${bucket}/${key}`);
    return found ? answer(200, found) : answer(404, xml('<Error><Code>NoSuchKey</Code></Error>'));
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return { url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, objects, close: () => server.close() };
}
