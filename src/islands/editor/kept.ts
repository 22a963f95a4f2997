/** What is typed is kept in this browser until the server has it. Without React. */
import { CONTENT_FORMAT, type ListingContent, upgradeContent } from '@/core/listing/content';

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
    if (kept?.format !== 1 || !kept.content) return undefined;
    const content = upgradeContent(kept.content as unknown as Record<string, unknown>) as unknown as ListingContent;
    return content.format === CONTENT_FORMAT ? { ...kept, content } : undefined;
  } catch {
    return undefined;
  }
}

export function dropKept(store: Pick<Storage, 'removeItem'>, userId: string, id: string | null): void {
  store.removeItem(keyOf(userId, id));
}
