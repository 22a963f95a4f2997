/** The HTML that people may write. Sanitised on the server, on the way in, whatever the editor did before. */
import sanitizeHtml from 'sanitize-html';
import { readTextPicture, textPictureAttributes } from '@/core/picture/in-text';

const OPTIONS: sanitizeHtml.IOptions = {
  allowedTags: ['p', 'br', 'h2', 'h3', 'h4', 'strong', 'b', 'em', 'i', 's', 'u', 'ul', 'ol', 'li', 'blockquote', 'a', 'img', 'hr', 'code'],
  allowedAttributes: {
    a: ['href', 'title', 'rel'],
    img: ['src', 'alt', 'width', 'height', 'data-side', 'data-width', 'data-link'],
    ol: ['start'],
  },
  allowedSchemes: ['http', 'https', 'mailto', 'tel', 'geo'],
  allowedSchemesByTag: { img: [] },
  allowProtocolRelative: false,
  // A heading of the text stands under the page's own title.
  transformTags: {
    h1: 'h2',
    h5: 'h4',
    h6: 'h4',
    div: 'p',
    img: (tagName, attribs) => {
      const { src = '', alt = '', width, height } = attribs;
      const size = { ...(width ? { width } : {}), ...(height ? { height } : {}) };
      return { tagName, attribs: { src, alt, ...size, ...textPictureAttributes(readTextPicture(attribs)) } };
    },
    a: (tagName, attribs) => ({ tagName, attribs: { ...attribs, rel: 'nofollow noopener' } }),
  },
  // Pictures come from this site only; others would follow readers about, and may vanish.
  exclusiveFilter: (frame) => frame.tag === 'img' && !/^\/picture\/[0-9a-f-]{36}(\/\d+)?$/.test(frame.attribs.src ?? ''),
};

/** HTML with what people may write, and nothing else. */
export function cleanHtml(html: string): string {
  const clean = sanitizeHtml(html, OPTIONS).trim();
  return clean === '<p></p>' ? '' : clean;
}

/** A text that leaves the site: what it links to and its pictures by their whole addresses. `html` is clean already. */
export function withWholeAddresses(html: string, site: string): string {
  const whole =
    (name: 'href' | 'src'): sanitizeHtml.Transformer =>
    (tagName, attribs) => {
      const address = attribs[name] ?? '';
      return { tagName, attribs: address.startsWith('/') ? { ...attribs, [name]: site + address } : attribs };
    };
  return sanitizeHtml(html, {
    ...OPTIONS,
    exclusiveFilter: () => false,
    allowedSchemesByTag: {},
    transformTags: { a: whole('href'), img: whole('src') },
  });
}
