/** Categories, red-letter days and the demo's sign-ins. All invented. */
import type { Shape } from '@/core/colour/mark';

export const SIGN_INS = [
  { name: 'Maud Petrel', email: 'maud@almanac.example', role: 'coordinator', password: 'kittiwick-isles-1' },
  { name: 'Ivo Skerrit', email: 'ivo@almanac.example', role: 'editor', password: 'kittiwick-isles-2' },
  { name: 'Nan Tarbert', email: 'nan@almanac.example', role: 'contributor', password: 'kittiwick-isles-3' },
] as const;

export interface DemoCategory {
  key: string;
  name: string;
  shape: Shape;
  ink: string;
  icon: string;
  /** the picture of listings that have none */
  pic?: string;
  children: { key: string; name: string }[];
}
export const CATEGORIES: DemoCategory[] = [
  {
    key: 'water',
    name: 'Water & boats',
    shape: 'triangle',
    ink: '#0b5cad',
    icon: 'sailboat',
    children: [
      { key: 'racing', name: 'Racing' },
      { key: 'navigation', name: 'Navigation' },
    ],
  },
  {
    key: 'music',
    name: 'Music & dance',
    shape: 'disc',
    ink: '#86308f',
    icon: 'music',
    children: [
      { key: 'choirs', name: 'Choirs' },
      { key: 'ceilidhs', name: 'Ceilidhs' },
    ],
  },
  {
    key: 'learn',
    name: 'Learn & make',
    shape: 'square',
    ink: '#a34a08',
    icon: 'scissors',
    children: [
      { key: 'mending', name: 'Mending' },
      { key: 'talks', name: 'Talks' },
    ],
  },
  {
    key: 'wild',
    name: 'Wild & outdoors',
    shape: 'diamond',
    ink: '#2f6b1f',
    icon: 'footprints',
    children: [
      { key: 'walks', name: 'Walks' },
      { key: 'skies', name: 'Night skies' },
    ],
  },
  {
    key: 'market',
    name: 'Market & food',
    shape: 'bar',
    ink: '#a5123a',
    icon: 'store',
    pic: 'market',
    children: [{ key: 'seeds', name: 'Seeds & gardens' }],
  },
  { key: 'town', name: 'Town business', shape: 'ring', ink: '#465562', icon: 'landmark', children: [] },
];

export const HOLIDAYS = [
  { name: 'New Year', kind: 'fixed', month: 1, day: 1 },
  { name: 'Good Friday', kind: 'easter', offset: -2 },
  { name: 'Easter Sunday', kind: 'easter', offset: 0 },
  { name: 'Isles Day', kind: 'weekday', month: 6, weekday: 0, nth: 1 },
  { name: 'Lamp Night', kind: 'fixed', month: 11, day: 11 },
  { name: 'Boxing Day', kind: 'fixed', month: 12, day: 26 },
  { name: 'Christmas Day', kind: 'fixed', month: 12, day: 25 },
  { name: 'Isles school break', kind: 'span', first: { month: 3, day: 29 }, last: { month: 4, day: 2 }, from: 2027, until: 2027 },
] as const;
