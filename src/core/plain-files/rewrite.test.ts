import { describe, expect, it } from 'vitest';
import { type PageLinks, rewriteHtml } from './rewrite-html';
import { assetsIn, picturesIn, rewriteFeed, rewriteJson, rewriteSitemap } from './rewrite-text';

const SITE = 'https://almanac.example';
const links = (more: Partial<PageLinks> = {}): PageLinks => ({
  sites: [SITE, 'http://127.0.0.1:4321'],
  link: (address) => (address.startsWith('/add') ? undefined : `..${address}/`),
  form: () => undefined,
  whole: (address) => (address.startsWith('/add') ? undefined : `https://parish.example/events${address}/`),
  ...more,
});

describe('a page as a file of a copy', () => {
  it('leads where the copy says, and stays byte for byte elsewhere', () => {
    const page = `<!doctype html>\n<html data-root="/" lang=en><Body  CLASS='a'>\n<a href="/list?kind=a&amp;x=1" class=b>L</a><a href='/what/x#d'>é&nbsp;</a>
<img src="/picture/1/a.jpg" srcset="/picture/1/a.jpg 640w, /picture/1/b.jpg 1024w"><a href="//elsewhere.example/x">E</a><a href="mailto:a@b.example">M</a><a href="/\\evil.example/x">V</a>
<script type="application/ld+json">{"url":"${SITE}/what/x"}</script><style>a{background:url(/x)}</style>`;
    expect(rewriteHtml(page, links())).toBe(
      page
        .replace('data-root="/"', 'data-root="..//"')
        .replace('"/list?kind=a&amp;x=1"', '"../list?kind=a&amp;x=1/"')
        .replace("href='/what/x#d'", 'href="../what/x#d/"')
        .replace('src="/picture/1/a.jpg"', 'src="../picture/1/a.jpg/"')
        .replace('"/picture/1/a.jpg 640w, /picture/1/b.jpg 1024w"', '"../picture/1/a.jpg/ 640w, ../picture/1/b.jpg/ 1024w"'),
    );
  });

  it('keeps the words of a link that leads nowhere, and takes out a form that nobody answers', () => {
    const page = '<p><a class="x" href="/add">Add one</a></p><form action="/list"><a href="/what/x">x</a><input></form><p>After</p>';
    expect(rewriteHtml(page, links())).toBe('<p><a class="x">Add one</a></p><p>After</p>');
    const answered = rewriteHtml(page, links({ form: (address) => `https://almanac.example${address}` }));
    expect(answered).toContain('<form action="https://almanac.example/list"><a href="../what/x/">x</a>');
  });

  it('says whole addresses where search engines and calendars read them', () => {
    const head = `<link rel="canonical" href="${SITE}/what/x"><link rel="alternate" href="${SITE}/add"><meta property="og:image" content="${SITE}/card.png"><meta name="description" content="/not one">`;
    expect(rewriteHtml(head, links())).toBe(
      '<link rel="canonical" href="https://parish.example/events/what/x/"><meta property="og:image" content="https://parish.example/events/card.png/"><meta name="description" content="/not one">',
    );
    const feed = `<a href="webcal://almanac.example/feed.ics">Open</a><a href="/feed.ics">${SITE}/feed.ics</a><a href="${SITE}.evil.example/x">Other</a><a href="http://127.0.0.1:4321/what/x">In a text</a>`;
    expect(rewriteHtml(feed, links())).toBe(
      `<a href="webcal://parish.example/events/feed.ics/">Open</a><a href="../feed.ics/">https://parish.example/events/feed.ics/</a><a href="${SITE}.evil.example/x">Other</a><a href="../what/x/">In a text</a>`,
    );
    // Where whole addresses lead to a server that answers, they stay.
    expect(rewriteHtml(feed, links({ sites: [] }))).toContain(`href="webcal://almanac.example/feed.ics"`);
  });

  it('reads islands, templates and what stands without a script', () => {
    const page =
      '<noscript><a href="/list">L</a></noscript><template><a href="/list">L</a></template><astro-island component-url="/_astro/A.js" props="{&quot;at&quot;:&quot;/x&quot;}"></astro-island><svg><a href="/list"></a></svg>';
    expect(rewriteHtml(page, links()).match(/\.\.\/(list|_astro\/A\.js)\//g)).toHaveLength(4);
  });
});

describe('files that are no pages', () => {
  it('find those beside them', () => {
    const code =
      'import{a}from"./a.B1.js";const m=()=>import("./c.js");const u=new URL("worker.x.mjs",import.meta.url);e("./a.css");f("none.mjs")';
    expect(assetsIn(code)).toEqual(['/_astro/a.B1.js', '/_astro/c.js', '/_astro/worker.x.mjs', '/_astro/a.css']);
    expect(assetsIn('@font-face{src:url(./f.woff2)}')).toEqual(['/_astro/f.woff2']);
  });

  it('name addresses of the copy', () => {
    expect(
      JSON.parse(
        rewriteJson('{"start_url":"/","name":"/ or so","icons":[{"src":"/m.png"}]}', (a) => (a === '/m.png' ? './m.png' : undefined)),
      ),
    ).toEqual({
      start_url: '/',
      name: '/ or so',
      icons: [{ src: './m.png' }],
    });
    const feed = `<link>${SITE}/what/a/2027-03-17</link><id>${SITE}/list</id>,"${SITE}/fr/what/b",${SITE}`;
    expect(rewriteFeed(feed, SITE, (address) => `https://parish.example${address}/`)).toBe(
      `<link>https://parish.example/what/a/2027-03-17/</link><id>${SITE}/list</id>,"https://parish.example/fr/what/b/",${SITE}`,
    );
    const map = `<urlset><url><loc>${SITE}/what/a&amp;b</loc><lastmod>2027</lastmod></url><url><loc>${SITE}</loc></url><url><loc>${SITE}/add</loc></url></urlset>`;
    expect(rewriteSitemap(map, SITE, links().whole)).toEqual({
      xml: '<urlset><url><loc>https://parish.example/events/what/a&amp;b/</loc><lastmod>2027</lastmod></url><url><loc>https://parish.example/events//</loc></url></urlset>',
      addresses: ['/what/a&b', '/', '/add'],
    });
    expect(picturesIn(`ATTACH:${SITE}/pict\r\n ure/1/2/wide-10\r\n 24.jpg\r\nX:${SITE}/picture/1/2/wide-1024.jpg`, SITE)).toEqual([
      '/picture/1/2/wide-1024.jpg',
    ]);
  });
});
