/** The order of categories: a tree of two levels, as a flat list of who stands under whom. Pure, so that moves are tested as they are. */

/** A category in the tree, by its id and what it stands under. */
export interface TreeItem {
  id: string;
  parentId: string | null;
}

/** Where a category is dropped: before, after or on another. */
export interface TreeMove {
  id: string;
  /** where it goes: before or after another, or under it as its last */
  target: string;
  position: 'before' | 'after' | 'on';
}

const childrenOf = (items: readonly TreeItem[], id: string): TreeItem[] => items.filter((item) => item.parentId === id);

/**
 * The list with one item moved; its children go along. A reason in words when the tree would have three levels, or an item would stand
 * under itself.
 */
export function movedInTree(items: readonly TreeItem[], { id, target, position }: TreeMove): TreeItem[] | string {
  const item = items.find((one) => one.id === id);
  const to = items.find((one) => one.id === target);
  if (!item || !to || id === target) return 'It stays where it is.';
  const children = childrenOf(items, id);
  const parentId = position === 'on' ? target : to.parentId;
  if (parentId === id) return 'A category cannot stand under itself.';
  if (position === 'on' && to.parentId) return 'Categories are two levels deep: this one stands under another already.';
  if (parentId && children.length) return 'It has categories under it, so it stays at the top.';
  const carried = [{ ...item, parentId }, ...children];
  const rest = items.filter((one) => !carried.some((c) => c.id === one.id));
  const at = rest.findIndex((one) => one.id === target);
  const span = childrenOf(rest, target).length;
  // Behind a parent means behind its children too.
  const place = position === 'before' ? at : at + 1 + span;
  return [...rest.slice(0, place), ...carried, ...rest.slice(place)];
}

/** One step by keyboard: up and down among its like, in under the one before it, out to the top. */
export function steppedInTree(items: readonly TreeItem[], id: string, step: 'up' | 'down' | 'in' | 'out'): TreeItem[] | string {
  const item = items.find((one) => one.id === id);
  if (!item) return 'It stays where it is.';
  const like = items.filter((one) => one.parentId === item.parentId);
  const at = like.findIndex((one) => one.id === id);
  const before = like[at - 1];
  const after = like[at + 1];
  if (step === 'up') return before ? movedInTree(items, { id, target: before.id, position: 'before' }) : 'It is the first.';
  if (step === 'down') return after ? movedInTree(items, { id, target: after.id, position: 'after' }) : 'It is the last.';
  if (step === 'out') return item.parentId ? movedInTree(items, { id, target: item.parentId, position: 'after' }) : 'It stands at the top.';
  if (item.parentId) return 'Categories are two levels deep.';
  return before ? movedInTree(items, { id, target: before.id, position: 'on' }) : 'There is none before it to stand under.';
}
