/** N, outside of any field, goes to the field that takes a listing in one line. */
document.addEventListener('keydown', (event) => {
  if (event.key !== 'n' || event.altKey || event.ctrlKey || event.metaKey) return;
  if ((event.target as Element).closest('input, textarea, select, [contenteditable=true], dialog, [role=grid]')) return;
  const field = document.querySelector<HTMLInputElement>('#one-line');
  if (!field) return;
  event.preventDefault();
  field.focus();
});
