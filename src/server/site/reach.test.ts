import { createServer, type RequestListener, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { isNonce, lookAtAddress, tokenFor } from './reach';

const NONCE = '3b0c9a54-6f6d-4a55-9c53-6d8f0e4f4a11';
const TOKEN = tokenFor((text) => `signed ${text}`, NONCE);

let server: Server | undefined;
afterEach(() => new Promise<void>((done) => (server ? server.close(() => done()) : done())));

async function answering(listener: RequestListener): Promise<string> {
  const made = createServer(listener);
  server = made;
  await new Promise<void>((done) => made.listen(0, '0.0.0.0', done));
  return `http://127.0.0.1:${(made.address() as AddressInfo).port}`;
}
const look = (address: string) => lookAtAddress(address, NONCE, TOKEN);

describe('whether the site is reached under its address', () => {
  it('is so where it is itself that answers, through a redirect too', async () => {
    const address = await answering((request, response) => {
      const url = new URL(request.url ?? '/', 'http://site.example');
      if (url.pathname === '/herez') response.writeHead(302, { location: `/elsewhere${url.search}` }).end();
      else response.end(url.searchParams.get('nonce') === NONCE ? TOKEN : '');
    });
    // Every address of the machine, which is not only its own name for itself.
    const { well, said } = await look(address.replace('127.0.0.1', '0.0.0.0'));
    expect([well, said]).toEqual([true, expect.stringMatching(/^Yes\. .* leads to this site; it answered in \d+ ms\.$/)]);
    expect(await look(address)).toEqual({ well: false, said: expect.stringContaining('only to the machine that the site runs on') });
  });

  it.each<[string, RequestListener, RegExp]>([
    ['another site', (_, response) => response.end('Welcome!'), /Something else answers/],
    ['a site without such a page', (_, response) => response.writeHead(404).end('no'), /Something else answers/],
    ['a server that fails', (_, response) => response.writeHead(502).end(), /error 502/],
    ['one that never ends', (_, response) => void response.write('x'.repeat(100_000)), /Something else answers/],
    ['one that hangs up', (request) => void request.socket.destroy(), /Nothing answers/],
  ])('is not so where there is %s', async (_, listener, says) => {
    const { well, said } = await look(await answering(listener));
    expect([well, said]).toEqual([false, expect.stringMatching(says)]);
  });

  it('is not so where nobody is', async () => {
    expect(await look('http://127.0.0.1:9')).toEqual({ well: false, said: expect.stringContaining('could not be asked') });
    const free = await answering(() => undefined);
    await new Promise<void>((done) => server?.close(() => done()));
    server = undefined;
    expect(await look(free)).toEqual({ well: false, said: `Nothing answers at ${free}.` });
    expect((await look('http://no-such-host.invalid')).said).toBe(
      'Nobody knows the name no-such-host.invalid yet. New names can take a day.',
    );
  });

  it('is asked with a nonce, which is no text of anybody’s choice', () => {
    expect([NONCE, 'receipt 12', '', `${NONCE}x`].map(isNonce)).toEqual([true, false, false, false]);
  });
});
