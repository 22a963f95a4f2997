/** What the kinds of the open basemap schema are drawn as, on the movable map and on small ones. */

/** Surfaces of `landuse` that are drawn as green. */
export const GREEN_KINDS = [
  'park',
  'forest',
  'wood',
  'grass',
  'garden',
  'golf_course',
  'nature_reserve',
  'meadow',
  'recreation_ground',
  'cemetery',
] as const;

/** Kinds of `roads`, by how they are drawn. */
export const ROAD_KINDS = {
  major: ['highway', 'major_road'],
  minor: ['medium_road', 'minor_road'],
  path: ['path'],
  rail: ['rail'],
} as const;
