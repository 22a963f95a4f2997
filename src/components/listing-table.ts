/** The rows of the Desk's table, and long lists of choices, as HTML text: hundreds of small templates would cost more than the query. */
import { html, type Html, type Piece } from './html';
import type { EpochDay } from '@/core/day/day';
import { instantToDateTime } from '@/core/day/zone';
import { sayCost, STAGE_WORDS } from '@/core/listing/content';
import { sayDay, sayTime, type Style } from '@/core/phrase/format';
import { sayRule } from '@/core/phrase/say';
import { fromStored } from '@/core/recurrence/stored';
import { type Column, COLUMN_WORDS, type TableRow } from '@/server/desk/table';
import { type ReferenceData, namesOf } from '@/server/reference/read';
import { markHtml } from './marks';
import { pagesWords } from '@/words/desk';

const w = pagesWords.listingTable;

/** Options of a select, after its first. */
export function optionsHtml(first: string, choices: readonly { value: string; name: string }[], chosen: string): Html {
  const rest = choices.map(({ value, name }) => html`<option value="${value}"${value === chosen ? html` selected` : ''}>${name}</option>`);
  return html`<option value="">${first}</option>${rest}`;
}

export interface TableLook {
  columns: readonly Column[];
  reference: ReferenceData;
  style: Style;
  zone: string;
  today: EpochDay;
}

/** Cells that are changed in place, by their column. */
const EDITED: Partial<Record<Column, string>> = {
  next: 'when',
  venue: 'venue',
  organizer: 'organizers',
  category: 'category',
  tags: 'tags',
  cost: 'cost',
  stage: 'stage',
};
const CLASSES: Partial<Record<Column, string>> = { next: 'nowrap', changed: 'nowrap quiet', repeats: 'quiet' };

export function rowsHtml(rows: readonly TableRow[], look: TableLook): Html[] {
  return rows.map((row) => rowHtml(row, look));
}

function rowHtml(row: TableRow, look: TableLook): Html {
  const { id, working } = row;
  const title = row.title;
  const pick = html`<td class="pick w-6 max-[760px]:float-left max-[760px]:border-0 max-[760px]:pt-1"><input type="checkbox" name="chosen" value="${id}" aria-label="Choose ${title || w.aListingWithoutA()}"></td>`;
  const mark = markHtml(look.reference.category.get(working.categoryIds[0] ?? ''));
  const headline = working.headline ? html`<span class="quiet small"> headline</span>` : '';
  const editing = row.editing ? html`<span class="amber small"> not saved yet: ${row.editing}</span>` : '';
  const page = row.stage === 'published' ? html` data-page="/what/${row.slug}"` : '';
  const menu = html`<button type="button" class="float-right min-h-6 min-w-6 border-0 bg-transparent text-ink-2" data-row-menu aria-haspopup="menu" aria-label="What to do with ${title || 'it'}">⋯</button>`;
  const name = html`<td class="${CARD} max-[760px]:font-bold relative min-[1000px]:w-[27%] focus-visible:outline-2 focus-visible:outline-tide focus-visible:-outline-offset-2" data-edit="title" data-value="${title}">${menu}${mark} <a href="/desk/listings/${id}"><strong>${title || w.withoutATitle()}</strong></a>${headline}${editing}</td>`;
  return html`<tr class="max-[760px]:relative max-[760px]:block max-[760px]:border-b max-[760px]:border-ink-3 max-[760px]:py-1.5" data-id="${id}" data-revision="${row.revision}"${page}>${pick}${name}${look.columns.map((column) => cellHtml(row, column, look))}</tr>`;
}

function cellHtml(row: TableRow, column: Column, look: TableLook): Html {
  const edited = EDITED[column];
  const words = column === 'stage' ? stageHtml(row, look) : cellWords(row, column, look);
  const classes = [CARD, CLASSES[column] ?? '', edited ? CHANGEABLE : '', words ? '' : 'max-[760px]:hidden'].filter(Boolean);
  const editing = edited
    ? html` data-edit="${edited}" data-value="${cellValue(row, column)}" tabindex="-1" title="Press to change it here"`
    : '';
  return html`<td class="${classes.join(' ')}" data-label="${COLUMN_WORDS[column]}"${editing}>${words}</td>`;
}

/** A cell that can be changed where it stands. */
const CHANGEABLE = 'relative cursor-text hover:bg-wash focus-visible:-outline-offset-2 focus-visible:outline-2 focus-visible:outline-tide';

/** On a phone a row is a card: each cell a line that says what it is. */
const CARD =
  'max-[760px]:block max-[760px]:border-0 max-[760px]:py-0.5 max-[760px]:before:mr-1.5 max-[760px]:before:font-normal max-[760px]:before:text-ink-2 max-[760px]:before:content-[attr(data-label)]';

/** What a cell's field begins with. */
function cellValue({ working, stage }: TableRow, column: Column): string {
  switch (column) {
    case 'next':
      return working.recurrence?.parts[0]?.start ?? '';
    case 'venue':
      return working.venueIds[0] ?? '';
    case 'organizer':
      return working.organizerIds.join(' ');
    case 'category':
      return working.categoryIds[0] ?? '';
    case 'tags':
      return working.tagIds.join(' ');
    case 'cost':
      return sayCost(working.cost);
    default:
      return stage;
  }
}

function stageHtml(row: TableRow, { style, zone }: TableLook): Piece {
  const say = (at: Date): string => {
    const wall = instantToDateTime(zone, at.getTime());
    return `${sayDay(wall.day, style, { month: 'short' })} ${sayTime(wall.minute, style)}`;
  };
  const times = [
    row.publishAt ? w.out({ day: say(row.publishAt) }) : '',
    row.withdrawAt ? w.down({ day: say(row.withdrawAt) }) : '',
  ].filter(Boolean);
  return [
    html`<span class="stage ${row.stage}">${STAGE_WORDS[row.stage]}</span>`,
    row.edited ? html`<span class="amber small"> changes wait</span>` : '',
    times.length ? html`<span class="small"> ${times.join(', ')}</span>` : '',
    row.scheduleWrong ? html`<span class="red small" title="${row.scheduleWrong}"> did not go out</span>` : '',
  ];
}

/** What stands in a cell. */
function cellWords(row: TableRow, column: Column, { reference, style, zone, today }: TableLook): string {
  const { working } = row;
  switch (column) {
    case 'next': {
      if (row.nextDay === null) return working.recurrence ? w.past() : w.noDate();
      const day = sayDay(row.nextDay, style, { weekday: 'short', month: 'short', year: true });
      return row.nextMinute === null ? day : `${day} ${sayTime(row.nextMinute, style)}`;
    }
    case 'repeats':
      return repeatWords(working, style);
    case 'venue':
      return working.attendance === 'online' ? 'online' : namesOf(working.venueIds, reference.venue);
    case 'organizer':
      return namesOf(working.organizerIds, reference.organizer);
    case 'category':
      return reference.category.get(working.categoryIds[0] ?? '')?.name ?? '';
    case 'tags':
      return namesOf(working.tagIds, reference.tag);
    case 'cost':
      return sayCost(working.cost);
    case 'owner':
      return row.owner;
    case 'matters':
      return row.matters ? String(row.matters) : '';
    case 'changed': {
      const wall = instantToDateTime(zone, row.changedAt.getTime());
      return wall.day === today ? sayTime(wall.minute, style) : sayDay(wall.day, style, { month: 'short', year: true });
    }
    default:
      return STAGE_WORDS[row.stage];
  }
}

function repeatWords({ recurrence }: TableRow['working'], style: Style): string {
  if (!recurrence) return '';
  const { parts } = fromStored(recurrence);
  const first = parts.find((s) => s.rule);
  if (!first?.rule) return parts.length > 1 ? w.dates({ n: parts.length }) : w.once();
  return sayRule(first.rule, first.start.day, style) + (parts.length > 1 ? w.andMore() : '');
}
