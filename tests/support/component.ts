/** What components need of a browser that jsdom does not have. */
import { cleanup } from '@testing-library/react';
import { afterEach, beforeAll } from 'vitest';

/** Puts the missing parts in place, and takes each test's components off the page after it. */
export function inBrowser(): void {
  beforeAll(() => {
    HTMLDialogElement.prototype.showModal = function showModal(this: HTMLDialogElement) {
      this.open = true;
    };
    HTMLElement.prototype.scrollIntoView = () => undefined;
  });
  afterEach(() => {
    cleanup();
    document.body.innerHTML = '';
  });
}
