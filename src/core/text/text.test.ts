import { describe, expect, it } from 'vitest';
import { escapeHtml, fold, freeSlug, paragraphs, plainText, shorten, slugOf } from './text';

describe('text', () => {
  it('folds marks, case and blanks', () => expect(fold('  Fête  à l’École, ŒUVRE ')).toBe("fete a l'ecole, oeuvre"));
  it('makes web addresses', () => {
    const cases: Record<string, string> = {
      "St Bride's Hall": 'st-brides-hall',
      'Ceilidh — at 8 p.m.!': 'ceilidh-at-8-pm',
      潮: 'listing',
      '--': 'listing',
      'Ærø & Skåne': 'aero-skane',
    };
    for (const [title, address] of Object.entries(cases)) expect(slugOf(title)).toBe(address);
    expect(slugOf('x'.repeat(300))).toHaveLength(80);
  });
  it('finds the first free address', () => expect(freeSlug('choir', new Set(['choir', 'choir-2']))).toBe('choir-3'));
  it('shortens at a word', () => {
    expect(shorten('Two hours over sand that is sea', 20)).toBe('Two hours over sand…');
    expect(shorten('short', 20)).toBe('short');
    expect(shorten('x'.repeat(40), 20)).toHaveLength(20);
  });
  it('takes the words out of HTML and puts words into it', () => {
    expect(plainText('<p>Nets &amp; buckets</p><ul><li>one</li><li>two</li></ul>')).toBe('Nets & buckets\none\ntwo');
    expect(plainText('<p>a &amp;lt; b</p>')).toBe('a &lt; b');
    expect(paragraphs('One\ntwo\n\n<b>three</b>')).toBe('<p>One<br>two</p><p>&lt;b&gt;three&lt;/b&gt;</p>');
    expect(plainText(paragraphs('a < b & c\n\n"d"'))).toBe('a < b & c\n"d"');
  });
  it('escapes what could open or close anything', () =>
    expect(escapeHtml(`<a href="x" title='y'>&`)).toBe('&lt;a href=&quot;x&quot; title=&#39;y&#39;&gt;&amp;'));
});
