/** Addresses of the site as a browser asks for them: a site may lie below a path of its host, which each page says. */

/** On the server a page is made as at its host's root, and led below the path when it goes out. */
const root = typeof document === 'undefined' ? '/' : (document.documentElement.dataset.root ?? '/');

/** @param address one of the site's, from its own root: `/desk/listings` */
export const siteAddress = (address: string): string => root.replace(/\/$/, '') + address;

/** Opens a page of the site in the place of this one. */
export const openPage = (address: string): void => location.assign(siteAddress(address));
