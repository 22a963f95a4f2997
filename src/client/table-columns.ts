/** The chosen columns go with the form as one value. */
const value = document.querySelector<HTMLInputElement>('[data-columns]');
for (const box of document.querySelectorAll<HTMLInputElement>('[data-column]'))
  box.addEventListener('change', () => {
    const on = [...document.querySelectorAll<HTMLInputElement>('[data-column]:checked')].map((b) => b.dataset.column ?? '');
    if (value) value.value = on.join(',');
  });
