/** An event's times by the reader's own clock, worked out here: the site is not told where anybody is. */

/** The offset of a zone at a moment, as `GMT+1`. */
function offsetOf(zone: string | undefined, at: Date): string {
  const parts = new Intl.DateTimeFormat('en', { timeZone: zone, timeZoneName: 'longOffset' }).formatToParts(at);
  return parts.find(({ type }) => type === 'timeZoneName')?.value ?? '';
}

function say(line: HTMLElement): void {
  const { start = '', end = '', zone = '', words = '', same = '', hours, locale } = line.dataset;
  const from = new Date(Number(start));
  const own = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const city = own.split('/').at(-1)?.replaceAll('_', ' ') ?? own;
  line.hidden = false;
  if (offsetOf(zone, from) === offsetOf(own, from)) {
    line.textContent = same.replace('{zone}', city);
    return;
  }
  const format = new Intl.DateTimeFormat(locale, {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    hour: 'numeric',
    minute: '2-digit',
    hour12: hours === '12',
  });
  const when = end ? format.formatRange(from, new Date(Number(end))) : format.format(from);
  line.textContent = words.replace('{zone}', city).replace('{when}', when);
}

for (const line of document.querySelectorAll<HTMLElement>('[data-own-zone]')) {
  const button = document.querySelector<HTMLButtonElement>('[data-ask-own-zone]');
  if (!button) say(line);
  else {
    button.classList.remove('invisible');
    button.addEventListener('click', () => {
      say(line);
      button.remove();
    });
  }
}

export {};
