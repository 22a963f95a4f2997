/** The listing's editor: an index of sections, the form as one page, and the rail with Dates and Proof. */
import { useEffect, useDeferredValue, useMemo, useState } from 'react';
import { railOf } from '@/core/dates/rail';
import type { EditorStart } from '@/core/listing/editor';
import { stopsPublishing } from '@/core/validation/note';
import { EditorDialogs, type Shown } from './EditorDialogs';
import { Form } from './Form';
import { leadTo } from './lead-to';
import { DatesRail } from './parts/Dates';
import { Head } from './parts/Head';
import { PhoneBar } from './parts/PhoneBar';
import { ValidationRail } from './parts/ProofRail';
import { goToField, SECTION_OF, SectionIndex } from './sections';
import { useClashes } from './use-clashes';
import { useEditorKeys } from './use-editor-keys';
import { useEdits } from './use-edits';
import { useListing } from './use-listing';
import { useParties } from './use-parties';
import { useValidation } from './use-validation';
import { useVisits } from './use-visits';
import { editorWords } from '@/words/desk';

const w = editorWords.listingEditor;

export default function ListingEditor({ start }: { start: EditorStart }) {
  const listing = useListing(start);
  const { content, setContent, server, dirty, note, busy } = listing;
  const parties = useParties(start, listing);
  const { venues, organizers } = parties;
  const [pictures, setPictures] = useState(start.pictures);
  const [shown, setShown] = useState<Shown>(null);
  const others = useEdits({ id: server.id, revision: server.revision, content, dirty });
  // What depends on dates is worked out when dates change, not with each letter of a title.
  const { recurrence, changes } = content;
  const rail = useMemo(() => railOf({ recurrence, changes }, start.site.today, start.site.horizon), [recurrence, changes, start.site]);
  // Proof may come a moment after the letter.
  const settled = useDeferredValue(content);
  const clashes = useClashes(rail, content, server.id, start.site.zone, venues);
  const validation = useValidation({ start, id: server.id, revision: server.revision, content: settled, pictures, venues, organizers });
  const visits = useVisits(server.id === null && listing.refused.turn === 0);
  const shownValidation = { ...validation, open: validation.open.filter((note) => visits.seen(SECTION_OF[note.field])) };
  useEditorKeys(listing);
  // A refused save or publish leads to the first field that has to change.
  // biome-ignore lint/correctness/useExhaustiveDependencies: each refusal once
  useEffect(() => {
    if (listing.refused.turn > 0 && listing.refused.field) leadTo(listing.refused.field, goToField);
  }, [listing.refused.turn]);
  const names = useMemo(
    () => new Map([...venues, ...organizers, ...start.categories, ...start.tags].map((c) => [c.id, c.name])),
    [venues, organizers, start.categories, start.tags],
  );
  return (
    <section aria-label={w.listing()}>
      <Head
        listing={listing}
        start={start}
        stopped={stopsPublishing(validation.all)}
        onCopy={() => setShown({ kind: 'copy' })}
        others={others}
      />
      <div className="editor grid grid-cols-[118px_minmax(0,1fr)_372px] min-h-[calc(100vh_-_110px)] max-[1080px]:grid-cols-1">
        <SectionIndex />
        <Form listing={listing} start={start} parties={parties} pictures={pictures} setPictures={setPictures} rail={rail} />
        <aside
          className="pt-4.5 pb-15 px-4.5 min-w-0 border-l border-l-rule max-[1080px]:border-l-0 max-[1080px]:border-t max-[1080px]:border-t-rule"
          aria-label={w.datesAndProof()}
        >
          <div className="sticky top-16 max-h-[calc(100vh_-_80px)] overflow-auto max-[1080px]:static max-[1080px]:max-h-none">
            <DatesRail content={content} setContent={setContent} rail={rail} clashes={clashes} site={start.site} venues={venues} />
            <ValidationRail
              validation={shownValidation}
              goTo={goToField}
              quickFix={setContent}
              compare={(note) => setShown({ kind: 'compare', note })}
              kept={server.id !== null}
              calm={visits.calm}
            />
          </div>
        </aside>
      </div>
      <PhoneBar
        listing={listing}
        start={start}
        notes={shownValidation.open.filter((n) => n.severity !== 'good').length}
        dates={rail.total}
      />
      <span className="hidden-words" role="status">
        {busy ? w.saving() : (note?.text ?? '')}
      </span>
      <EditorDialogs listing={listing} start={start} parties={parties} names={names} shown={shown} onClose={() => setShown(null)} />
      {dirty && <span hidden data-dirty />}
    </section>
  );
}
