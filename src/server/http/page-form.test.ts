import type { AstroGlobal } from 'astro';
import { describe, expect, it } from 'vitest';
import { invalid } from '../problem';
import { handleLongForm } from './page-form';

/** A page to which a form was posted, and how often it said that the content changed. */
function posted(fields: Record<string, string>): { page: AstroGlobal; changed: () => number } {
  let n = 0;
  const request = new Request('http://site.example/desk/set-up/time', { method: 'POST', body: new URLSearchParams(fields) });
  const locals = { rt: { contentChanged: async () => void n++ } };
  return { page: { request, locals, response: {} } as unknown as AstroGlobal, changed: () => n };
}

describe('a form of the Desk', () => {
  it('says that the content changed where it says something, and not for what was only looked at', async () => {
    const saved = posted({ do: 'save' });
    expect((await handleLongForm(saved.page, async () => 'Saved.')).said).toBe('Saved.');
    const looked = posted({ do: 'show' });
    expect((await handleLongForm(looked.page, async () => '')).said).toBe('');
    expect([saved.changed(), looked.changed()]).toEqual([1, 0]);
  });

  it('keeps what was typed beside what is wrong', async () => {
    const { page, changed } = posted({ currency: 'pounds' });
    const { said, fields, errors } = await handleLongForm(page, async () => {
      throw invalid('currency', 'Three letters');
    });
    expect([said, fields, errors?.get('currency'), page.response.status]).toEqual([
      undefined,
      { currency: 'pounds' },
      'Three letters',
      422,
    ]);
    expect(changed()).toBe(0);
  });
});
