// Measures the text face in a browser, for core/text/widths.ts: how wide each letter is, in thousandths of the size. Run by hand
// when the face changes: node scripts/measure-font.mjs > src/core/text/widths.ts
import { readFileSync } from 'node:fs';
import { chromium } from '@playwright/test';

const FACE = 'node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2';
const font = readFileSync(FACE).toString('base64');
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu'],
});
const page = await browser.newPage();
await page.setContent(
  `<style>@font-face{font-family:F;src:url(data:font/woff2;base64,${font});font-weight:200 800}</style><p style="font-family:F">x</p>`,
);
const widths = await page.evaluate(async () => {
  await document.fonts.load('400 1000px F');
  const context = document.createElement('canvas').getContext('2d');
  context.font = '400 1000px F';
  const list = [];
  for (let code = 32; code < 127; code++) list.push(Math.round(context.measureText(String.fromCharCode(code)).width));
  for (let code = 160; code < 256; code++) list.push(Math.round(context.measureText(String.fromCharCode(code)).width));
  return list;
});
await browser.close();
const lines = [];
for (let i = 0; i < widths.length; i += 24) lines.push(`  ${widths.slice(i, i + 24).join(', ')},`);
console.log(`/** Widths of letters in Atkinson Hyperlegible Next, thousandths of the size: U+0020–007E, then U+00A0–00FF. Measured by scripts/measure-font.mjs. */
// biome-ignore format: a table
export const WIDTHS: readonly number[] = [
${lines.join('\n')}
];`);
