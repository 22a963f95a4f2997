/** One box chooses all boxes of its form's table. */
for (const all of document.querySelectorAll<HTMLInputElement>('[data-all]')) {
  const boxes = (): HTMLInputElement[] => [...(all.form?.querySelectorAll<HTMLInputElement>('tbody input[type=checkbox]') ?? [])];
  all.addEventListener('change', () => {
    for (const box of boxes()) box.checked = all.checked;
  });
  all.form?.addEventListener('change', () => {
    all.checked = boxes().every((box) => box.checked);
  });
}
