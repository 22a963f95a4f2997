/** Places beside the chart, each with its first dates, as HTML text: hundreds of small components cost more than anything else on the page. */
import { isOff } from '@/core/dates/next-date';
import type { EffectiveDate } from '@/core/dates/effective-date';
import type { Gathered, PlaceDates } from '@/server/public/places';
import type { ReferenceData } from '@/server/reference/read';
import { html, type Html } from './html';
import { statusWords } from './ledger-html';
import { markHtml } from './marks';
import { dateHref } from './month-html';
import type { Reader } from './reader';

/** So many dates of a place are named. */
const NAMED = 4;

export interface PlacesInput {
  reader: Reader;
  reference: ReferenceData;
  /** how many of some dates take place */
  happening: (dates: EffectiveDate[]) => number;
}

/** @param line when a date is, in words */
export function placesHtml(places: readonly PlaceDates[], line: (date: EffectiveDate) => string, input: PlacesInput): Html {
  return html`${places.map((place) => placeHtml(place, line, input))}`;
}

function placeHtml(
  { venue, dates, categoryId }: PlaceDates,
  line: (date: EffectiveDate) => string,
  { reader, reference, happening }: PlacesInput,
): Html {
  const { words: w, to } = reader;
  const linked = (text: string): Html | string => (venue.binnedAt ? text : html`<a href="${to(`/at/${venue.slug}`)}">${text}</a>`);
  const named = dates.slice(0, NAMED).map((date) => {
    const off = isOff(date.eventStatus);
    const title = html`<a href="${dateHref(date, reader)}" class="${off ? 'struck' : ''}">${date.shortTitle || date.title}</a>`;
    return html`<li class="relative py-px">${line(date)} ${title}${off ? html`<span class="red"> ${statusWords(date.eventStatus, w)}</span>` : ''}</li>`;
  });
  const more = dates.length > NAMED ? html`<li class="relative py-px">${linked(w.map.more({ n: dates.length - NAMED }))}</li>` : '';
  return html`<li class="py-2.5 px-3.5 border-b border-b-rule border-l-4 border-l-unmarked relative [&.on]:border-l-tide [&.on]:bg-tide-wash" data-place="${venue.id}"><h2 class="text-[16px] pr-12.5">${linked(venue.name)}</h2><span class="absolute right-3.5 top-2.75 font-bold text-[13px] flex gap-1.25 items-center">${markHtml(reference.category.get(categoryId))}${happening(dates)}</span>${venue.town ? html`<span class="small quiet">${venue.town}</span>` : ''}<ul class="mt-0.75 text-[13px] text-ink-2">${named}${more}</ul></li>`;
}

/** Dates that cannot stand on the chart, with why. */
export function offChartHtml(off: Gathered['offChart'], line: (date: EffectiveDate) => string, reader: Reader): Html {
  const { words: w } = reader;
  const reasons = { online: w.map.online(), 'no-position': w.map.noPosition(), 'no-venue': w.map.noVenue() };
  const lines = off.map(({ date, why }) => {
    const reason = isOff(date.eventStatus) ? statusWords(date.eventStatus, w) : reasons[why];
    return html`<li class="relative py-px">${line(date)} <a href="${dateHref(date, reader)}">${date.title}</a> · ${reason}</li>`;
  });
  return html`${lines}`;
}
