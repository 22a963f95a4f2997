/** What was said once is not said again when the page is reloaded, kept or passed on: it leaves the address. */
const url = new URL(location.href);
if (url.searchParams.has('said') || url.searchParams.has('decided')) {
  for (const name of ['said', 'seal', 'decided', 'undo']) url.searchParams.delete(name);
  history.replaceState(history.state, '', url);
}
