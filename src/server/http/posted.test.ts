import { describe, expect, it } from 'vitest';
import { checkAddress, readFields, readForm } from './form-body';

const post = (body: BodyInit, type?: string): Request =>
  new Request('http://almanac.example/', { method: 'POST', body, ...(type ? { headers: { 'content-type': type } } : {}) });

describe('what came with a request', () => {
  it('is cleaned in forms, whose files come along', async () => {
    const sent = new FormData();
    sent.append('title', 'Low\0-tide');
    sent.append('title', 'Walk');
    sent.append('file', new File(['x'], 'x\0.png'));
    const form = await readForm(post(sent));
    expect(form.getAll('title')).toEqual(['Low-tide', 'Walk']);
    expect((form.get('file') as File).name).toBe('x.png');
    expect({ ...(await readFields(post(sent))) }).toEqual({ title: 'Walk' });
  });
  it.each([
    ['{}', 'application/json'],
    ['x', 'text/plain'],
    ['x', 'multipart/form-data; boundary=y'],
  ])('is refused in words when it is no form: %s as %s', async (body, type) => {
    await expect(readForm(post(body, type))).rejects.toMatchObject({ kind: 'malformed', title: expect.stringContaining('send it anew') });
  });
  it('has an address without NUL', () => {
    for (const path of ['/list?words=%00', '/what/%00'])
      expect(() => checkAddress(new URL(path, 'http://x.example')), path).toThrow('address');
    expect(() => checkAddress(new URL('/list?words=100%2500', 'http://x.example'))).not.toThrow();
  });
});
