import { describe, expect, it } from 'vitest';
import { pictureLink, readTextPicture, SIDES, textPictureAttributes, WIDTHS } from './in-text';

describe('a picture in a text', () => {
  it('keeps its side, width and link, in every combination', () => {
    for (const side of SIDES)
      for (const width of WIDTHS)
        for (const link of ['', 'https://shore.example/walk', '/what/low-tide-walk', 'mailto:rue@dunlin.example', 'tel:555-0177']) {
          const picture = { side, width, link };
          expect(readTextPicture(textPictureAttributes(picture))).toEqual(picture);
        }
    expect(textPictureAttributes({ side: 'middle', width: 'full', link: '' })).toEqual({});
  });
  it('is as usual where something else stands', () => {
    expect(readTextPicture({ 'data-side': 'up', 'data-width': '900px', 'data-link': 'javascript:alert(1)' })).toEqual({
      side: 'middle',
      width: 'full',
      link: '',
    });
  });
  it('leads to pages, mails and telephones only', () => {
    expect(pictureLink('www.shore.example')).toBe('https://www.shore.example');
    for (const bad of ['javascript:alert(1)', 'data:text/html,x', '//evil.example', '/\\evil.example', 'shore', 'vbscript:x', '/a"b'])
      expect(pictureLink(bad), bad).toBeUndefined();
  });
});
