/** What a new listing begins with because of its organizer. */
import type { ListingContent } from './content';
import type { OrganizerChoice } from './editor';

/** The organizer's category and contact, where the listing says nothing of its own yet. */
export function defaultsOf(
  content: Pick<ListingContent, 'categoryIds' | 'contact'>,
  organizer: Pick<OrganizerChoice, 'categoryId' | 'contact'> | undefined,
): Partial<ListingContent> {
  if (!organizer) return {};
  const { name, phone, mail } = content.contact;
  const own = organizer.contact;
  return {
    ...(organizer.categoryId && !content.categoryIds.length ? { categoryIds: [organizer.categoryId] } : {}),
    ...(!name && !phone && !mail && (own.name || own.phone || own.mail) ? { contact: { ...own } } : {}),
  };
}
