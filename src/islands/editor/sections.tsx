/** The sections of the listing's form: their names, where each field is, and the index that leads to them. */
import type { ValidationField } from '@/core/validation/note';
import { editorWords } from '@/words/desk';

const w = editorWords.listingEditor;

const SECTIONS = [
  ['what', w.what()],
  ['when', w.when()],
  ['where', w.where()],
  ['who', w.who()],
  ['words', w.words()],
  ['details', w.details()],
  ['picture', w.pictures()],
  ['stage', w.stage()],
] as const;

export const SECTION_OF: Record<ValidationField, string> = {
  title: 'what',
  shortTitle: 'words',
  categories: 'words',
  summary: 'words',
  text: 'words',
  when: 'when',
  venues: 'where',
  online: 'where',
  organizers: 'who',
  cost: 'details',
  website: 'details',
  call: 'details',
  contact: 'details',
  access: 'details',
  expected: 'details',
  picture: 'picture',
};

/** Scrolls to a field's section and puts the focus into the field, or into the first one there. */
export function goToField(field: ValidationField): void {
  const section = document.getElementById(SECTION_OF[field]);
  section?.scrollIntoView({ block: 'start' });
  const inside =
    section?.querySelector<HTMLElement>(`[name="${field}"]`) ?? section?.querySelector<HTMLElement>('input, select, button, [tabindex]');
  inside?.focus({ preventScroll: true });
}

export function SectionIndex() {
  return (
    <div className="py-4.5 border-r border-r-rule max-[1080px]:hidden">
      <nav className="sticky top-18.5" aria-label={w.sections()}>
        {SECTIONS.map(([id, name]) => (
          <a
            className="block py-1.25 pr-3 pl-4.25 border-l-[3px] border-l-unmarked no-underline text-ink-2 hover:text-ink hover:font-bold hover:border-ink [&.here]:border-ink [&.here]:font-bold [&.here]:text-ink"
            key={id}
            href={`#${id}`}
          >
            {name}
          </a>
        ))}
      </nav>
    </div>
  );
}
