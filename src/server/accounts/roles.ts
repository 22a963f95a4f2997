/** Who may do what. Roles: coordinator (everything), editor (all listings, Intake), contributor (own listings). */

import { serverWords } from '@/words/desk';

const w = serverWords.accountsRoles;

/** The roles of the team; each may all that those after it may. */
export const ROLES = ['coordinator', 'editor', 'contributor'] as const;
/** One of {@link ROLES}. */
export type Role = (typeof ROLES)[number];

/** Whoever makes a change; `id` is null for the site itself and for readers without an account. */
export interface Actor {
  id: string | null;
  name: string;
  role: Role | 'reader' | 'site';
}

/** Stands in audit lines for what the site does by itself. */
export const SITE_ACTOR: Actor = { id: null, name: w.theSite(), role: 'site' };

/** May they change every listing? */
export function editsAll(actor: Actor): boolean {
  return actor.role === 'coordinator' || actor.role === 'editor' || actor.role === 'site';
}

/** May they change this listing: every one, or their own? */
export function mayEdit(actor: Actor, listing: { ownerId: string | null }): boolean {
  return editsAll(actor) || (actor.role === 'contributor' && actor.id !== null && listing.ownerId === actor.id);
}
