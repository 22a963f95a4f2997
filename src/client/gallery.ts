/** An event's pictures, large and one after another: arrow keys, a swipe, captions. Without it each opens as a file. */

const gallery = document.querySelector<HTMLElement>('[data-part="gallery"]');
const links = [...(gallery?.querySelectorAll<HTMLAnchorElement>('a') ?? [])];
/** A swipe is at least so long, in pixels. */
const SWIPE = 40;

function button(text: string, label: string, press: () => void): HTMLButtonElement {
  const made = document.createElement('button');
  made.type = 'button';
  made.className = 'button min-w-11 min-h-11';
  made.textContent = text;
  made.setAttribute('aria-label', label);
  made.addEventListener('click', press);
  return made;
}

function viewer(words: DOMStringMap): { open: (at: number) => void } {
  const { close = '', previous = '', next = '', counted = '' } = words;
  const dialog = document.createElement('dialog');
  dialog.className = 'm-auto max-w-[96vw] max-h-[96vh] p-3 bg-sheet text-ink border border-rule-strong backdrop:bg-ink/70';
  dialog.setAttribute('aria-label', gallery?.getAttribute('aria-label') ?? '');
  const image = document.createElement('img');
  image.className = 'block max-w-full max-h-[78vh] mx-auto object-contain';
  const caption = document.createElement('p');
  caption.className = 'm-0 mt-2 flex-1 text-center text-[14px]';
  caption.setAttribute('role', 'status');
  let at = 0;
  const show = (to: number): void => {
    at = (to + links.length) % links.length;
    const link = links[at] as HTMLAnchorElement;
    image.src = link.href;
    image.alt = link.querySelector('img')?.alt ?? '';
    const number = counted.replace('{n}', String(at + 1)).replace('{total}', String(links.length));
    const said = [image.alt, link.parentElement?.querySelector('figcaption')?.textContent?.trim()].filter(Boolean).join(' · ');
    caption.textContent = said ? `${number}: ${said}` : number;
  };
  const foot = document.createElement('div');
  foot.className = 'flex gap-2 items-center mt-2';
  const several = links.length > 1;
  if (several) foot.append(button('‹', previous, () => show(at - 1)));
  foot.append(caption);
  if (several) foot.append(button('›', next, () => show(at + 1)));
  foot.append(button('×', close, () => dialog.close()));
  dialog.append(image, foot);
  document.body.append(dialog);
  dialog.addEventListener('keydown', ({ key }) => {
    if (key === 'ArrowLeft') show(at - 1);
    if (key === 'ArrowRight') show(at + 1);
  });
  let from: number | undefined;
  image.addEventListener('pointerdown', (event) => {
    from = event.clientX;
  });
  image.addEventListener('pointerup', (event) => {
    const moved = event.clientX - (from ?? event.clientX);
    from = undefined;
    if (Math.abs(moved) >= SWIPE) show(at + (moved < 0 ? 1 : -1));
  });
  image.draggable = false;
  image.style.touchAction = 'pan-y';
  // A press beside the pictures leaves them.
  dialog.addEventListener('click', ({ target }) => target === dialog && dialog.close());
  dialog.addEventListener('close', () => links[at]?.focus());
  return {
    open: (to) => {
      show(to);
      dialog.showModal();
    },
  };
}

if (gallery && links.length && 'showModal' in HTMLDialogElement.prototype) {
  const shown = viewer(gallery.dataset);
  for (const [i, link] of links.entries())
    link.addEventListener('click', (event) => {
      // With a key held, a link is opened as the reader is used to.
      if (event.ctrlKey || event.metaKey || event.shiftKey || event.button) return;
      event.preventDefault();
      shown.open(i);
    });
}

export {};
