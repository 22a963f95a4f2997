/** Alt+N goes to the field that takes a listing in one line, from wherever somebody is. */
document.addEventListener('keydown', (event) => {
  // By its place on the keyboard: with Alt some layouts type another sign.
  if (event.code !== 'KeyN' || !event.altKey || event.ctrlKey || event.metaKey || document.querySelector('dialog[open]')) return;
  const field = document.querySelector<HTMLInputElement>('#one-line');
  if (!field) return;
  event.preventDefault();
  field.focus();
});
