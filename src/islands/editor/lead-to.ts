/** From a refusal's field to the place in the form where it is mended. */
import { type ContentField, FIELD_NAMES, FIELDS, fieldOf } from '@/core/listing/fields';
import type { ValidationField } from '@/core/validation/note';

/** The form's field of a refusal such as `recurrence.parts.0.start`, or of a field of the form itself; undefined for what has none there. */
export function enteredAt(refused: string): ValidationField | undefined {
  const name = refused.replace(/^content\./, '').split('.')[0] ?? '';
  if (Object.hasOwn(FIELDS, name)) return fieldOf(name as ContentField).entered;
  return FIELD_NAMES.map((field) => fieldOf(field).entered).find((entered) => entered === name);
}

/** Leads to the field of a refusal, once its error stands there. */
export function leadTo(refused: string, goTo: (field: ValidationField) => void): void {
  const field = enteredAt(refused);
  if (field) requestAnimationFrame(() => goTo(field));
}
