/** Two people's edits of one listing, field by field. */
import { canonical } from '../text/canonical';
import type { ListingContent } from './content';

/** The parts of a content that differ, by name. */
export function differences(a: ListingContent, b: ListingContent): (keyof ListingContent)[] {
  return (Object.keys(a) as (keyof ListingContent)[]).filter((name) => canonical(a[name]) !== canonical(b[name]));
}

/** Of what differs between mine and theirs, what only one side changed since both began: those merge by themselves. */
export function mergeContents(
  base: ListingContent,
  mine: ListingContent,
  theirs: ListingContent,
): { merged: ListingContent; collisions: (keyof ListingContent)[] } {
  const collisions: (keyof ListingContent)[] = [];
  const merged = { ...theirs } as Record<keyof ListingContent, unknown>;
  for (const name of differences(mine, theirs)) {
    const mineChanged = canonical(base[name]) !== canonical(mine[name]);
    const theirsChanged = canonical(base[name]) !== canonical(theirs[name]);
    if (mineChanged) merged[name] = mine[name];
    if (mineChanged && theirsChanged) collisions.push(name);
  }
  return { merged: merged as unknown as ListingContent, collisions };
}
