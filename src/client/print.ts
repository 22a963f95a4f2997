/** "Print this sheet" shows only where a script can print. */
document.addEventListener('click', (event) => {
  if (!(event.target as Element).closest('[data-print]')) return;
  event.preventDefault();
  window.print();
});
for (const link of document.querySelectorAll<HTMLElement>('[data-print]')) link.hidden = false;
