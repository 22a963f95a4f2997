import { describe, expect, it } from 'vitest';
import { html, NOTHING, safe } from './html';

describe('HTML as text', () => {
  it('escapes what is put in, in texts and in attributes', () => {
    const title = `"><script>alert('x')</script> & more`;
    expect(html`<a title="${title}">${title}</a>`.text).toBe(
      '<a title="&quot;&gt;&lt;script&gt;alert(&#39;x&#39;)&lt;/script&gt; &amp; more">&quot;&gt;&lt;script&gt;alert(&#39;x&#39;)&lt;/script&gt; &amp; more</a>',
    );
  });
  it('puts in HTML as it is, once, and lists one after the other', () => {
    const row = (name: string) => html`<li>${name}</li>`;
    expect(html`<ul>${['a', '<b>'].map(row)}</ul>`.text).toBe('<ul><li>a</li><li>&lt;b&gt;</li></ul>');
    expect(html`${safe('<b>&amp;</b>')}${[NOTHING, ['x', 1]]}`.text).toBe('<b>&amp;</b>x1');
    expect(String(html`${html`<i></i>`}`)).toBe('<i></i>');
  });
  it('leaves out what is nothing, and keeps nought', () => {
    const open = false;
    expect(html`<p${open && html` hidden`}>${undefined}${null}${0}${''}</p>`.text).toBe('<p>0</p>');
  });
});
