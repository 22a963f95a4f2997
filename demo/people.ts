/** Venues, organizers, categories and the demo's sign-ins. All invented. */
import type { Shape } from '@/core/colour/mark';
import { onBoard } from './chart';

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
  children: { key: string; name: string }[];
}
export const CATEGORIES: DemoCategory[] = [
  {
    key: 'water',
    name: 'Water & boats',
    shape: 'triangle',
    ink: '#0b5cad',
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
    children: [
      { key: 'walks', name: 'Walks' },
      { key: 'skies', name: 'Night skies' },
    ],
  },
  { key: 'market', name: 'Market & food', shape: 'bar', ink: '#a5123a', children: [{ key: 'seeds', name: 'Seeds & gardens' }] },
  { key: 'town', name: 'Town business', shape: 'ring', ink: '#465562', children: [] },
];

const spot = (x: number, y: number): { lat: number; lng: number } => {
  const [lng, lat] = onBoard(x, y);
  return { lat, lng };
};
export const VENUES = [
  {
    key: 'hall',
    name: "St Bride's Hall",
    street: '3 Chapel Brae',
    town: 'Port Amble',
    island: 'Amble',
    ...spot(190, 248),
    access: 'Step-free from the yard door; hearing loop in the hall.',
    phone: '555-0111',
  },
  {
    key: 'pilots',
    name: "Pilots' House",
    street: '1 Harbour Steps',
    town: 'Port Amble',
    island: 'Amble',
    ...spot(250, 222),
    access: 'Four steps at the door, ring and we carry; the reading room is level inside.',
  },
  {
    key: 'slip',
    name: 'Port Amble Slip',
    street: 'Harbour Steps',
    town: 'Port Amble',
    island: 'Amble',
    ...spot(312, 262),
    access: 'Wet stone, steep at low water.',
  },
  {
    key: 'council',
    name: 'Council Room',
    street: '12 Chapel Brae',
    town: 'Port Amble',
    island: 'Amble',
    ...spot(140, 205),
    access: 'Lift from the street door.',
  },
  {
    key: 'quay',
    name: 'Lantern Quay',
    street: 'The Quay',
    town: 'Lantern Quay',
    island: 'Lantern',
    ...spot(470, 215),
    access: 'Level cobbles; a smooth strip runs along the rail.',
  },
  {
    key: 'workshop',
    name: 'Lantern Quay Workshop',
    street: '7 Rope Walk',
    town: 'Lantern Quay',
    island: 'Lantern',
    ...spot(515, 172),
    access: 'Step-free; two benches at sitting height.',
    phone: '555-0127',
  },
  {
    key: 'oven',
    name: 'The Bread Oven',
    street: '2 Rope Walk',
    town: 'Lantern Quay',
    island: 'Lantern',
    ...spot(425, 185),
    access: 'Open air, one kerb.',
  },
  {
    key: 'netloft',
    name: 'Net Loft',
    street: '4 Slip Lane',
    town: 'Gannet Bay',
    island: 'Gannet',
    ...spot(500, 425),
    access: 'Stair lift to the loft; ask at the door.',
    phone: '555-0134',
  },
  {
    key: 'causeway',
    name: 'Causeway Slip',
    street: 'Shore Road',
    town: 'Gannet Bay',
    island: 'Gannet',
    ...spot(398, 478),
    access: 'Soft sand; two beach wheelchairs, ask a day before.',
  },
  {
    key: 'glass',
    name: 'The Glasshouse',
    street: '9 Shore Road',
    town: 'Gannet Bay',
    island: 'Gannet',
    ...spot(450, 470),
    access: 'Step-free, warm, a little damp.',
  },
  {
    key: 'light',
    name: 'Outer Skerry Light',
    street: 'Light Path',
    town: 'Outer Skerry',
    island: 'Skerry',
    ...spot(130, 492),
    access: '96 steps to the lamp; the garden is level.',
  },
  {
    key: 'school',
    name: 'Skerry Schoolroom',
    street: 'Light Path',
    town: 'Outer Skerry',
    island: 'Skerry',
    ...spot(175, 500),
    access: 'Step-free; ramp to the yard.',
  },
];

export const ORGANIZERS = [
  {
    key: 'choir',
    name: 'Harbour Choir',
    text: 'Forty voices and no auditions since the old hall still had gas light. Come early and somebody will share their music.',
    mail: 'sing@harbourchoir.example',
    phone: '555-0101',
  },
  {
    key: 'wardens',
    name: 'Kittiwick Shore Wardens',
    text: 'They count birds, mark the causeway, and know what the tide is about to do.',
    mail: 'wardens@shore.example',
    phone: '555-0142',
  },
  {
    key: 'skiffs',
    name: 'Isles Skiff Club',
    text: 'Three wooden skiffs, built by their rowers, and a standing quarrel about oars.',
    mail: 'row@skiffs.example',
    phone: '555-0118',
  },
  {
    key: 'menders',
    name: 'The Mending Bench',
    text: 'What is torn, cracked or loose can mostly be put right by two people and a pot of tea.',
    mail: 'bench@menders.example',
    phone: '555-0127',
  },
  {
    key: 'market',
    name: 'Quay Market Company',
    text: 'Twenty-two stalls on the quay, every Saturday but the stormiest.',
    mail: 'stalls@quaymarket.example',
    phone: '555-0163',
  },
  {
    key: 'seeds',
    name: 'Salt Garden Society',
    text: 'Growing food within sight of the sea, and keeping the seed that survives it.',
    mail: 'salt@gardens.example',
    phone: '555-0155',
  },
  {
    key: 'skies',
    name: 'Skerry Sky Watch',
    text: 'Four telescopes and the darkest sky for two hundred miles.',
    mail: 'dark@skywatch.example',
    phone: '555-0172',
  },
  {
    key: 'council',
    name: 'Isles Council',
    text: 'Meetings are public. So are the biscuits.',
    mail: 'clerk@council.example',
    phone: '555-0190',
  },
  {
    key: 'ceilidh',
    name: 'Net Loft Dances',
    text: 'A band, a caller, a floor that has held worse.',
    mail: 'dance@netloft.example',
    phone: '555-0134',
  },
  {
    key: 'pilots',
    name: "Pilots' House Library",
    text: 'The charts, logs and letters of six generations of pilots, and a stove.',
    mail: 'read@pilots.example',
    phone: '555-0109',
  },
];

export const RED_LETTERS = [
  { name: 'New Year', kind: 'fixed', month: 1, day: 1 },
  { name: 'Good Friday', kind: 'easter', offset: -2 },
  { name: 'Easter Sunday', kind: 'easter', offset: 0 },
  { name: 'Isles Day', kind: 'weekday', month: 6, weekday: 0, nth: 1 },
  { name: 'Lamp Night', kind: 'fixed', month: 11, day: 11 },
  { name: 'Boxing Day', kind: 'fixed', month: 12, day: 26 },
  { name: 'Christmas Day', kind: 'fixed', month: 12, day: 25 },
] as const;
