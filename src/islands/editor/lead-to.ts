/** From a refusal's field to the place in the form where it is mended. */
import type { ValidationField } from '@/core/validation/note';

/** Fields as a content names them, by the field that Proof and the form know. */
const FIELD_OF: Record<string, ValidationField> = {
  title: 'title',
  shortTitle: 'shortTitle',
  summary: 'summary',
  text: 'text',
  translations: 'text',
  categoryIds: 'categories',
  categories: 'categories',
  tagIds: 'categories',
  recurrence: 'when',
  changes: 'when',
  when: 'when',
  whenWords: 'when',
  venueIds: 'venues',
  venues: 'venues',
  attendance: 'venues',
  onlineAddress: 'online',
  online: 'online',
  organizerIds: 'organizers',
  organizers: 'organizers',
  cost: 'cost',
  website: 'website',
  contact: 'contact',
  access: 'access',
  expected: 'expected',
  pictureId: 'picture',
  galleryIds: 'picture',
  picture: 'picture',
};

/** The form's field of a refusal such as `recurrence.parts.0.start`; undefined for what has none there. */
export function fieldOf(refused: string): ValidationField | undefined {
  return FIELD_OF[refused.replace(/^content\./, '').split('.')[0] ?? ''];
}

/** Leads to the field of a refusal, once its error stands there. */
export function leadTo(refused: string, goTo: (field: ValidationField) => void): void {
  const field = fieldOf(refused);
  if (field) requestAnimationFrame(() => goTo(field));
}
