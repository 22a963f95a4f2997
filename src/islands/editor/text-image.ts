/** A picture in the text, with its side, its width and where it leads: the schema of the editor, as the server keeps it. */
import { siteAddress } from '@/client/site-root';
import Image from '@tiptap/extension-image';
import { readTextPicture, SIDES, textPictureAttributes, WIDTHS } from '@/core/picture/in-text';

const readFrom = (element: HTMLElement) =>
  readTextPicture(Object.fromEntries(['data-side', 'data-width', 'data-link'].map((name) => [name, element.getAttribute(name)])));

export const TextImage = Image.extend({
  // Kept as an address from the site's own root; shown from where the site lies.
  addNodeView() {
    return ({ HTMLAttributes }) => {
      const dom = document.createElement('img');
      for (const [name, value] of Object.entries(HTMLAttributes)) {
        const text = String(value);
        dom.setAttribute(name, name === 'src' && text.startsWith('/picture/') ? siteAddress(text) : text);
      }
      return { dom };
    };
  },
  addAttributes() {
    return {
      ...this.parent?.(),
      side: {
        default: SIDES[0],
        parseHTML: (element: HTMLElement) => readFrom(element).side,
        renderHTML: ({ side }) => textPictureAttributes({ side, width: WIDTHS[0], link: '' }),
      },
      width: {
        default: WIDTHS[0],
        parseHTML: (element: HTMLElement) => readFrom(element).width,
        renderHTML: ({ width }) => textPictureAttributes({ side: SIDES[0], width, link: '' }),
      },
      link: {
        default: '',
        parseHTML: (element: HTMLElement) => readFrom(element).link,
        renderHTML: ({ link }) => textPictureAttributes({ side: SIDES[0], width: WIDTHS[0], link }),
      },
    };
  },
});
