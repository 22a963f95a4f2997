/** The words of the Desk, one value an island or a group of pages, so that each carries its own alone. They come in English. */
export { default as categoriesWords } from './compiled/desk-categories.en.js';
export { default as clientWords } from './compiled/desk-client.en.js';
export { default as editorWords } from './compiled/desk-editor.en.js';
export { default as entryWords } from './compiled/desk-entry.en.js';
export { default as daysWords } from './compiled/desk-days.en.js';
export { default as firstVisitWords } from './compiled/desk-first-visit.en.js';
export { default as fieldsWords } from './compiled/desk-fields.en.js';
export { default as pagesWords } from './compiled/desk-pages.en.js';
export { default as picturesWords } from './compiled/desk-pictures.en.js';
export { default as placesWords } from './compiled/desk-places.en.js';
export { default as sheetWords } from './compiled/desk-sheet.en.js';
export { default as tableWords } from './compiled/desk-table.en.js';
export { default as serverWords } from './compiled/desk-server.en.js';
export { default as settingsWords } from './compiled/desk-settings.en.js';
