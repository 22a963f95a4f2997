/** The Desk's bar: what there is to work at, by the work. One word a group; the pages of a group stand in a line below while one of them is open. */
import { isoMonth, monthNumberOf } from '@/core/day/day';
import { type Actor, editsAll } from '@/server/accounts/roles';
import { SETTINGS_PAGES } from '@/server/site/sections';
import { pagesWords, settingsWords } from '@/words/desk';

const w = pagesWords.desk;

/** One page of a group. */
export interface BarPage {
  /** what pages call themselves: `current` */
  id: string;
  name: string;
  href: string;
  /** how much waits there */
  count?: number | undefined;
}

/** A word of the bar with the pages that it stands for; the first is where it leads. */
export interface BarGroup {
  name: string;
  pages: BarPage[];
  /** pages within it that fill the screen, and so have no line of the others above them */
  inside?: readonly string[];
}

/** What waits, and what a site has switched on. */
export interface BarState {
  today: number;
  /** what others sent in and nobody has decided */
  intake: number;
  /** remarks of readers that nobody has answered */
  remarks: number;
  /** may anybody send events in? */
  takesEvents: boolean;
}

/** The groups that somebody works with, in the order of the bar. What is switched off is not in it, unless something waits there. */
export function barOf(actor: Actor, { today, intake, remarks, takesEvents }: BarState): BarGroup[] {
  const editor = editsAll(actor);
  const coordinator = actor.role === 'coordinator';
  const page = (id: string, name: string, href: string, count?: number): BarPage => ({ id, name, href, count });
  const when = <T>(may: boolean, one: () => T): T[] => (may ? [one()] : []);
  const groups: BarGroup[] = [
    { name: w.today(), pages: [page('today', w.today(), '/desk/today')] },
    {
      name: w.listings(),
      inside: ['listing'],
      pages: [
        page('listings', w.listings(), '/desk/listings'),
        ...when(editor, () => page('proof', w.proof(), '/desk/proof')),
        page('pictures', w.pictures(), '/desk/pictures'),
        ...when(editor, () => page('categories', w.categories(), '/desk/categories')),
        ...when(editor, () => page('tags', w.tags(), '/desk/tags')),
        ...when(editor, () => page('bring-in', w.import(), '/desk/bring-in')),
      ],
    },
    { name: w.calendar(), pages: [page('sheets', w.calendar(), `/desk/month/${isoMonth(monthNumberOf(today))}`)] },
  ];
  if (editor) {
    const waiting = [
      ...when(takesEvents || intake > 0, () => page('intake', w.intake(), '/desk/intake', intake)),
      page('remarks', w.remarks(), '/desk/remarks', remarks),
    ];
    if (takesEvents || intake + remarks > 0) groups.push({ name: w.intake(), pages: waiting });
    groups.push({
      name: w.places(),
      pages: [page('venues', w.venues(), '/desk/venues'), page('organizers', w.organizers(), '/desk/organizers')],
    });
  }
  if (coordinator) {
    groups.push({
      name: w.publishing(),
      pages: [page('plain-files', w.plainFiles(), '/desk/plain-files'), page('mail', w.mailTray(), '/desk/mail')],
    });
    groups.push({
      name: w.settings(),
      pages: [
        page('set-up', w.allSettings(), '/desk/set-up'),
        ...SETTINGS_PAGES.map(({ id, href }) => page(SETTINGS_IDS[id] ?? `set-up-${id}`, settingsWords.sections[id].title(), href)),
      ],
    });
  }
  return groups;
}

/** What the pages of the settings that lie elsewhere call themselves. */
const SETTINGS_IDS: Partial<Record<(typeof SETTINGS_PAGES)[number]['id'], string>> = {
  kinds: 'categories',
  people: 'people',
  health: 'health',
};

/** The group that an open page belongs to: the first that has it. */
export const groupOf = (groups: readonly BarGroup[], current: string): BarGroup | undefined =>
  groups.find(({ pages, inside = [] }) => inside.includes(current) || pages.some(({ id }) => id === current));
