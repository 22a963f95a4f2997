/** Shares an event's address by the reader's own programs where the browser can, else copies it; and prints its page. */

const said = document.querySelector<HTMLElement>('[data-share-said]');

async function share(button: HTMLElement): Promise<void> {
  const { share: url = '', title = '', copied = '', failed = '' } = button.dataset;
  if (navigator.share) {
    // Whoever closes the choice of programs wants nothing.
    await navigator.share({ title, url }).catch(() => undefined);
    return;
  }
  const done = await navigator.clipboard?.writeText(url).then(
    () => true,
    () => false,
  );
  if (said) said.textContent = done ? copied : `${failed} ${url}`;
}

for (const button of document.querySelectorAll<HTMLElement>('[data-share]')) {
  button.classList.remove('invisible');
  button.addEventListener('click', () => void share(button));
}
for (const button of document.querySelectorAll<HTMLElement>('[data-print-page]')) {
  button.classList.remove('invisible');
  button.addEventListener('click', () => window.print());
}

export {};
