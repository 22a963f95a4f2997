// Draws the pictures that stand for a site where it has none of its own: icons of home screens from public/mark.svg, and the card that other sites show
// beside a link. They are kept in public/, since drawing them needs nothing that a running site has; run this again when the mark changes.
import { readFileSync } from 'node:fs';
import sharp from 'sharp';

const mark = readFileSync('public/mark.svg');
for (const size of [180, 192, 512])
  await sharp(mark, { density: (72 * size) / 32 })
    .resize(size, size)
    .png({ compressionLevel: 9 })
    .toFile(`public/mark-${size}.png`);

/** A month's sheet without a word on it: rules, numerals' places as short strokes, a few bands. The site's name stands beside it wherever it is shown. */
function card() {
  const [ink, paper, rule, tide, red] = ['#16222b', '#fbfbf9', '#c9cfd3', '#0c5a63', '#b3261e'];
  const columns = Array.from({ length: 8 }, (_, i) => `<path d="M${420 + i * 100} 140V560" stroke="${rule}" stroke-width="2"/>`);
  const rows = Array.from({ length: 6 }, (_, i) => `<path d="M420 ${140 + i * 84}H1120" stroke="${rule}" stroke-width="2"/>`);
  const numerals = Array.from({ length: 35 }, (_, i) => {
    const [x, y] = [432 + (i % 7) * 100, 156 + Math.floor(i / 7) * 84];
    return `<path d="M${x} ${y}h18" stroke="${i % 7 === 6 ? red : ink}" stroke-width="5"/>`;
  });
  const bands = [
    [1, 0, 1, tide],
    [4, 0, 2, tide],
    [2, 1, 1, red],
    [0, 2, 4, tide],
    [5, 2, 1, ink],
    [3, 3, 1, tide],
    [1, 4, 2, ink],
  ].map(
    ([column, row, span, colour]) =>
      `<path d="M${432 + column * 100} ${196 + row * 84}h${span * 100 - 24}" stroke="${colour}" stroke-width="9"/>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1200 630"><rect width="1200" height="630" fill="${paper}"/>
    <path d="M420 92H1120M420 104H1120" stroke="${ink}" stroke-width="4"/>${[...columns, ...rows, ...numerals, ...bands].join('')}
    <g transform="translate(80 190) scale(7.8)"><rect width="32" height="32" fill="${tide}"/><path d="M5 9h22M5 12h22" stroke="#fff" stroke-width="1.6"/><path d="M16 16l7 11H9z" fill="#fff"/></g></svg>`;
}
await sharp(Buffer.from(card())).png({ compressionLevel: 9, palette: true }).toFile('public/card.png');
