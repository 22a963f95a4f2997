/** Arrow keys walk a table's rows by their first links; typing goes on in the search field. */
const links = [...document.querySelectorAll<HTMLAnchorElement>('[data-rows] tbody tr td a')];
document.addEventListener('keydown', (event) => {
  if (event.altKey || event.ctrlKey || event.metaKey || (event.target as Element).closest('input, select, textarea')) return;
  const at = links.indexOf(document.activeElement as HTMLAnchorElement);
  if (event.key === 'ArrowDown') links[Math.min(links.length - 1, at + 1)]?.focus();
  else if (event.key === 'ArrowUp' && at > 0) links[at - 1]?.focus();
  else return;
  event.preventDefault();
});
