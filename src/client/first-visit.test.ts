// @vitest-environment jsdom
import { afterEach, expect, it, vi } from 'vitest';

const openPage = vi.hoisted(() => vi.fn());
vi.mock('./site-root', () => ({ openPage, siteAddress: (address: string) => address }));

afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

it('a look that is answered after the site was made leads nowhere', async () => {
  vi.useFakeTimers();
  document.body.innerHTML =
    '<form data-first-visit><input type="text" name="mail" /><button name="do" value="done">Make it</button></form>';
  let answer: (response: Response) => void = () => undefined;
  const asked = vi.fn(() => new Promise<Response>((done) => (answer = done)));
  vi.stubGlobal('fetch', asked);
  await import('./first-visit');
  const form = document.querySelector('form') as HTMLFormElement;
  const [field, button] = [form.querySelector('input') as HTMLInputElement, form.querySelector('button') as HTMLButtonElement];
  field.dispatchEvent(new Event('input', { bubbles: true }));
  await vi.advanceTimersByTimeAsync(1000);
  expect(asked).toHaveBeenCalledTimes(1);
  // The browser goes on with the form by itself; jsdom has no pages to go to.
  form.addEventListener('submit', (event) => event.preventDefault());
  form.dispatchEvent(new SubmitEvent('submit', { submitter: button, cancelable: true }));
  answer(new Response('', { status: 409 }));
  await vi.advanceTimersByTimeAsync(1000);
  expect(openPage).not.toHaveBeenCalled();
  // Nor is anything asked that was about to be.
  field.dispatchEvent(new Event('input', { bubbles: true }));
  form.dispatchEvent(new SubmitEvent('submit', { submitter: button, cancelable: true }));
  await vi.advanceTimersByTimeAsync(1000);
  expect(asked).toHaveBeenCalledTimes(1);
});
