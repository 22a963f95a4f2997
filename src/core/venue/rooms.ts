/** Halls and the rooms inside them, one level deep. A room has its hall's address and position. */

/** What is asked of a venue to know which space it takes: its id, and the hall that it is a room of. */
export interface Roomed {
  id: string;
  parentId: string | null;
}

/**
 * The venues whose dates take the same space as a venue's: itself; for a hall all of its rooms, for a room its hall.
 * Two rooms of a hall are apart.
 */
export function sharesSpace(id: string, venues: readonly Roomed[]): string[] {
  const own = venues.find((venue) => venue.id === id);
  const rooms = venues.filter((venue) => venue.parentId === id).map((venue) => venue.id);
  return [...new Set([id, ...(own?.parentId ? [own.parentId] : []), ...rooms])];
}

/** Why a venue cannot stand inside another; undefined when it can. */
export function whyNoRoom(id: string | null, parentId: string, venues: readonly (Roomed & { name: string })[]): string | undefined {
  if (id === parentId) return 'A venue cannot be a room of itself.';
  const parent = venues.find((venue) => venue.id === parentId);
  if (!parent) return 'That hall is gone; choose another.';
  if (parent.parentId) return `“${parent.name}” is a room itself; choose the hall that it is in.`;
  const room = venues.find((venue) => id !== null && venue.parentId === id);
  if (room) return `“${room.name}” is a room of this one, so it cannot be a room itself.`;
  return undefined;
}
