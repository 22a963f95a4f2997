/** What is typed is kept in this browser until the server has it. Without React. */
import type { ListingContent } from '@/core/listing/content';

export interface Kept {
  format: 1;
  revision: number;
  content: ListingContent;
  at: number;
}
const keyOf = (userId: string, id: string | null): string => `almanac.draft.${userId}.${id ?? 'new'}`;

export function keep(store: Pick<Storage, 'setItem'>, userId: string, id: string | null, kept: Kept): boolean {
  try {
    store.setItem(keyOf(userId, id), JSON.stringify(kept));
    return true;
  } catch {
    return false;
  }
}

export function readKept(store: Pick<Storage, 'getItem'>, userId: string, id: string | null): Kept | undefined {
  try {
    const kept = JSON.parse(store.getItem(keyOf(userId, id)) ?? 'null') as Kept | null;
    return kept?.format === 1 && kept.content?.format === 1 ? kept : undefined;
  } catch {
    return undefined;
  }
}

export function dropKept(store: Pick<Storage, 'removeItem'>, userId: string, id: string | null): void {
  store.removeItem(keyOf(userId, id));
}
