/** Two people's edits of one listing, field by field. */
import { canonical } from '../text/canonical-json';
import type { ListingContent } from './content';
import { type ContentField, FIELD_NAMES, fieldOf } from './fields';

/** Are two values of a field the same? What is one object is not looked into: whoever types changes one field of many. */
const differ = (a: unknown, b: unknown): boolean => a !== b && canonical(a) !== canonical(b);

/** The parts of a content that differ, by name. */
export function differences(a: ListingContent, b: ListingContent): ContentField[] {
  return FIELD_NAMES.filter((name) => differ(a[name], b[name]));
}

/** Do two contents say the same? */
export function sameContent(a: ListingContent, b: ListingContent): boolean {
  return a === b || !FIELD_NAMES.some((name) => differ(a[name], b[name]));
}

/** Of what differs between mine and theirs, what only one side changed since both began: those merge by themselves. */
export function mergeContents(
  base: ListingContent,
  mine: ListingContent,
  theirs: ListingContent,
): { merged: ListingContent; collisions: ContentField[] } {
  const collisions: ContentField[] = [];
  const merged = { ...theirs } as Record<keyof ListingContent, unknown>;
  for (const name of differences(mine, theirs)) {
    const mineChanged = canonical(base[name]) !== canonical(mine[name]);
    const theirsChanged = canonical(base[name]) !== canonical(theirs[name]);
    if (mineChanged) merged[name] = mine[name];
    if (mineChanged && theirsChanged) collisions.push(name);
  }
  return { merged: merged as unknown as ListingContent, collisions };
}

const isEmpty = (value: unknown): boolean =>
  value === null ||
  value === undefined ||
  value === '' ||
  (Array.isArray(value) && !value.length) ||
  (typeof value === 'object' && value !== null && 'kind' in value && value.kind === 'unsaid') ||
  (typeof value === 'object' && value !== null && 'mail' in value && Object.values(value).every((v) => v === ''));

/** A content with what it lacks taken over from another of the same event. Its own words and dates stay. */
export function filledFrom(content: ListingContent, other: ListingContent): ListingContent {
  const gaps = FIELD_NAMES.filter((name) => fieldOf(name).fillsGaps && isEmpty(content[name]) && !isEmpty(other[name]));
  const taken = Object.fromEntries(gaps.map((name) => [name, other[name]]));
  return { ...content, ...taken };
}
