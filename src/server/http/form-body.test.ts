import { describe, expect, it } from 'vitest';
import { between, pick, random, rounds, seedOf } from '../../../tests/support/generate';
import { readForm } from './form-body';

const posted = (body: FormData | string, headers: Record<string, string> = {}): Request =>
  new Request('https://almanac.example/add', { method: 'POST', body, headers });

type Shown = [name: string, value: string | { name: string; type: string; bytes: string }];
async function shown(form: FormData): Promise<Shown[]> {
  const all: Shown[] = [];
  for (const [name, value] of form)
    all.push([
      name,
      typeof value === 'string'
        ? value
        : { name: value.name, type: value.type, bytes: Buffer.from(await value.arrayBuffer()).toString('hex') },
    ]);
  return all;
}

describe('a posted form', () => {
  it('comes apart as the platform takes it apart, whatever is in it', async () => {
    for (let round = 0; round < rounds(120); round++) {
      const r = random(seedOf() + round);
      const form = new FormData();
      for (let i = 0; i < between(r, 0, 12); i++) {
        const name = pick(r, ['title', 'text', 'picture', 'Größe', 'a"b']);
        const bytes = Uint8Array.from({ length: between(r, 0, 400) }, () => pick(r, [13, 10, 45, 45, 45, between(r, 0, 255)]));
        if (r() < 0.4) form.append(name, new File([bytes], pick(r, ['möwe.png', 'a b.jpg', 'x.webp']), { type: 'image/png' }));
        else form.append(name, pick(r, ['', 'Lantern walk', 'Zwölf – 12 €', '--', '\r\n--boundary\r\n', '💡'.repeat(between(r, 0, 50))]));
      }
      const [one, other] = [posted(form), posted(form)];
      expect(await shown(await readForm(one))).toEqual(await shown(await other.formData()));
    }
  });

  it('without files is read too, and an empty choice of a file is an empty file', async () => {
    const plain = await readForm(posted('title=Lantern+walk&day=2027-04-01', { 'content-type': 'application/x-www-form-urlencoded' }));
    expect(await shown(plain)).toEqual([
      ['title', 'Lantern walk'],
      ['day', '2027-04-01'],
    ]);
    const body =
      '--x\r\nContent-Disposition: form-data; name="picture"; filename=""\r\nContent-Type: application/octet-stream\r\n\r\n\r\n--x--\r\n';
    const [[name, file] = ['', '']] = await shown(await readForm(posted(body, { 'content-type': 'multipart/form-data; boundary=x' })));
    expect([name, file]).toEqual(['picture', expect.objectContaining({ bytes: '' })]);
  });

  it.each([
    ['broken off', 'multipart/form-data; boundary=x', '--x\r\nContent-Disposition: form-data; name="title"\r\n\r\nLant'],
    ['without a boundary', 'multipart/form-data', '--x\r\n\r\n'],
    ['of another kind', 'application/json', '{}'],
  ])('%s is refused', async (_, type, body) => {
    await expect(readForm(posted(body, { 'content-type': type }))).rejects.toThrow();
  });

  it('with more parts than any form of ours has is refused, not cut', async () => {
    const form = new FormData();
    for (let i = 0; i < 2_100; i++) form.append('kind', String(i));
    await expect(readForm(posted(form))).rejects.toThrow();
  });
});
