/** Trees of categories that a new site can begin with. Their names are in the catalogue, under the set's and the kind's key. */
import type { Shape } from '../colour/mark';

/** The sets there are; `none` is one kind for everything, since an event always has one. */
export const STARTING_SETS = ['place', 'house', 'club', 'none'] as const;
/** One of {@link STARTING_SETS}. */
export type StartingSet = (typeof STARTING_SETS)[number];

/** A kind of event of a set: its mark, and what lies under it. */
export interface StartingKind {
  key: string;
  shape: Shape;
  ink: string;
  icon: string;
  children: readonly string[];
}

const kind = (key: string, shape: Shape, ink: string, icon: string, ...children: string[]): StartingKind => ({
  key,
  shape,
  ink,
  icon,
  children,
});

/** What each begins with. The last kind of a set takes events that fit nowhere else. */
export const STARTING_KINDS: Record<StartingSet, readonly StartingKind[]> = {
  place: [
    kind('music', 'disc', '#86308f', 'music', 'concerts', 'singing', 'dances'),
    kind('stage', 'half-disc', '#b02a6a', '', 'theatre', 'film'),
    kind('learning', 'square', '#a34a08', '', 'talks', 'classes'),
    kind('outdoors', 'triangle', '#2f6b1f', 'trees', 'walks', 'gardens'),
    kind('sport', 'chevron', '#0b5cad', '', 'matches', 'practice'),
    kind('markets', 'diamond', '#8a5a00', '', 'stalls', 'fairs'),
    kind('families', 'star', '#0c6b75', ''),
    kind('civic', 'bar', '#465562', '', 'meetings', 'volunteering'),
  ],
  house: [
    kind('concerts', 'disc', '#86308f', 'music', 'orchestra', 'bands'),
    kind('plays', 'half-disc', '#b02a6a', ''),
    kind('films', 'ring', '#5646a5', ''),
    kind('exhibitions', 'square', '#0c6b75', '', 'openings', 'tours'),
    kind('readings', 'bar', '#a34a08', '', 'talks', 'books'),
    kind('workshops', 'diamond', '#5d6b12', ''),
    kind('children', 'star', '#0b5cad', ''),
    kind('house', 'chevron', '#465562', ''),
  ],
  club: [
    kind('meetings', 'bar', '#465562', '', 'committee', 'general'),
    kind('practice', 'chevron', '#0b5cad', ''),
    kind('contests', 'star', '#b0211c', '', 'home', 'away'),
    kind('outings', 'triangle', '#2f6b1f', 'footprints'),
    kind('courses', 'square', '#a34a08', ''),
    kind('evenings', 'disc', '#86308f', ''),
    kind('work', 'diamond', '#8a5a00', ''),
    kind('other', 'ring', '#5646a5', ''),
  ],
  none: [kind('events', 'disc', '#0b5cad', '')],
};
