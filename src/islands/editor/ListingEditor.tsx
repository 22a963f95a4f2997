/** The listing's editor: an index of sections, the form as one page, and the rail with Dates and Proof. */
import { useEffect, useDeferredValue, useMemo, useState } from 'react';
import { FIELDS, optionsOf } from '@/core/listing/fields';
import { type ValidationField, type ValidationNote, stopsPublishing } from '@/core/validation/note';
import type { EditorStart } from '@/core/listing/editor';
import { SignInAgain, TwoSaved } from './Dialogs';
import { MakeDialog } from './MakeDialog';
import { Select } from '../fields/fields';
import { Picker } from './Picker';
import { Pictures } from './parts/Pictures';
import { DatesRail } from './parts/Dates';
import { ValidationRail } from './parts/ProofRail';
import { When } from './parts/When';
import { defaultsOf } from '@/core/listing/defaults';
import { railOf } from '@/core/dates/rail';
import { useClashes } from './use-clashes';
import { CopyDialog } from './CopyDialog';
import { SideBySide } from './SideBySide';
import { useEdits } from './use-edits';
import { useListing } from './use-listing';
import { PlainField } from './parts/PlainField';
import { leadTo } from './lead-to';
import { PhoneBar } from './parts/PhoneBar';
import { useValidation } from './use-validation';
import { useVisits } from './use-visits';
import { Head } from './parts/Head';
import { What } from './parts/What';
import { Words } from './parts/Words';
import { Beginnings } from './parts/Beginnings';
import { Details } from './parts/Details';
import { StagePart } from './parts/Stage';
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
const SECTION_OF: Record<ValidationField, string> = {
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
  contact: 'details',
  access: 'details',
  expected: 'details',
  picture: 'picture',
};

export default function ListingEditor({ start }: { start: EditorStart }) {
  const listing = useListing(start);
  const { content, setContent, server, dirty, errors, note, busy, save } = listing;
  const [pictures, setPictures] = useState(start.pictures);
  const [venues, setVenues] = useState(start.venues);
  const [organizers, setOrganizers] = useState(start.organizers);
  const [making, setMaking] = useState<{ kind: 'venues' | 'organizers'; name: string } | null>(null);
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
  const [comparing, setComparing] = useState<ValidationNote | null>(null);
  const [copying, setCopying] = useState(false);
  /** A new listing begins with what its first organizer usually has; what was chosen already stays. */
  const takeOrganizers = (organizerIds: string[]): void =>
    setContent((c) => ({
      ...c,
      organizerIds,
      ...(server.id
        ? {}
        : defaultsOf(
            c,
            organizers.find((o) => o.id === organizerIds[0]),
          )),
    }));
  const error = (name: string): string | undefined => errors.get(name) ?? [...errors].find(([field]) => field.startsWith(`${name}.`))?.[1];
  const goTo = (field: ValidationField): void => {
    const section = document.getElementById(SECTION_OF[field]);
    section?.scrollIntoView({ block: 'start' });
    const inside =
      section?.querySelector<HTMLElement>(`[name="${field}"]`) ?? section?.querySelector<HTMLElement>('input, select, button, [tabindex]');
    inside?.focus({ preventScroll: true });
  };
  // A refused save or publish leads to the first field that has to change.
  // biome-ignore lint/correctness/useExhaustiveDependencies: each refusal once
  useEffect(() => {
    if (listing.refused.turn > 0 && listing.refused.field) leadTo(listing.refused.field, goTo);
  }, [listing.refused.turn]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if ((event.ctrlKey || event.metaKey) && event.key === 's') {
        event.preventDefault();
        void save();
      }
      // In a field the browser's own undo is what people expect.
      const typing =
        event.target instanceof HTMLElement && event.target.closest('input:not([type=checkbox]), textarea, [contenteditable=true]');
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !typing) {
        event.preventDefault();
        (event.shiftKey ? listing.redo : listing.undo)?.();
      }
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [save, listing.undo, listing.redo]);
  const names = useMemo(
    () => new Map([...venues, ...organizers, ...start.categories, ...start.tags].map((c) => [c.id, c.name])),
    [venues, organizers, start.categories, start.tags],
  );
  return (
    <section aria-label={w.listing()}>
      <Head listing={listing} start={start} stopped={stopsPublishing(validation.all)} onCopy={() => setCopying(true)} others={others} />
      <div className="editor grid grid-cols-[118px_minmax(0,1fr)_372px] min-h-[calc(100vh_-_110px)] max-[1080px]:grid-cols-1">
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
        <div className="bg-sheet pt-1.5 pb-20 px-6 min-w-0 max-[700px]:pt-1 max-[700px]:pb-15 max-[700px]:px-3.5">
          <Beginnings listing={listing} start={start} />
          <What content={content} setContent={setContent} isNew={!start.id} error={error} />
          <When
            content={content}
            setContent={setContent}
            site={start.site}
            rail={rail}
            error={error('recurrence') ?? error('when') ?? error('changes')}
          />
          <section className="part pt-4 scroll-mt-16" id="where">
            <h2 className="text-[20px] border-b border-b-rule-strong pb-1.75 mb-3">{w.where()}</h2>
            <div className="grid gap-3">
              <Select
                label={FIELDS.attendance.label}
                value={content.attendance}
                options={optionsOf('attendance')}
                onChange={(attendance) => setContent({ attendance })}
              />
              {content.attendance !== 'online' && (
                <Picker
                  label={w.venues()}
                  choices={venues}
                  name="venues"
                  pageOf={start.mayMake ? (id) => `/desk/venues/${id}` : undefined}
                  chosen={content.venueIds}
                  onChange={(venueIds) => setContent({ venueIds })}
                  onMake={start.mayMake ? (name) => setMaking({ kind: 'venues', name }) : undefined}
                  error={error('venueIds')}
                />
              )}
              {content.attendance !== 'in-person' && (
                <PlainField field="onlineAddress" content={content} setContent={setContent} error={error} />
              )}
            </div>
          </section>
          <section className="part pt-4 scroll-mt-16" id="who">
            <h2 className="text-[20px] border-b border-b-rule-strong pb-1.75 mb-3">{w.who()}</h2>
            <Picker
              label={w.organizers()}
              choices={organizers}
              name="organizers"
              pageOf={start.mayMake ? (id) => `/desk/organizers/${id}` : undefined}
              chosen={content.organizerIds}
              onChange={takeOrganizers}
              onMake={start.mayMake ? (name) => setMaking({ kind: 'organizers', name }) : undefined}
              error={error('organizerIds')}
            />
          </section>
          <Words content={content} setContent={setContent} start={start} error={error} />
          <Details content={content} setContent={setContent} currency={start.site.currency} error={error} />
          <Pictures
            pictures={pictures}
            onKnown={(picture) => setPictures((all) => [...all.filter((p) => p.id !== picture.id), picture])}
            ids={[...(content.pictureId ? [content.pictureId] : []), ...content.galleryIds]}
            setIds={(next) =>
              setContent((c) => {
                const [pictureId = null, ...galleryIds] = next([...(c.pictureId ? [c.pictureId] : []), ...c.galleryIds]);
                return { ...c, pictureId, galleryIds };
              })
            }
            error={error('pictureId') ?? error('picture')}
          />
          <StagePart listing={listing} start={start} error={error} />
        </div>
        <aside
          className="pt-4.5 pb-15 px-4.5 min-w-0 border-l border-l-rule max-[1080px]:border-l-0 max-[1080px]:border-t max-[1080px]:border-t-rule"
          aria-label={w.datesAndProof()}
        >
          <div className="sticky top-16 max-h-[calc(100vh_-_80px)] overflow-auto max-[1080px]:static max-[1080px]:max-h-none">
            <DatesRail content={content} setContent={setContent} rail={rail} clashes={clashes} site={start.site} venues={venues} />
            <ValidationRail
              validation={shownValidation}
              goTo={goTo}
              quickFix={setContent}
              compare={setComparing}
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
      {listing.signIn && (
        <SignInAgain
          onClose={() => listing.setSignIn(null)}
          onDone={() => {
            const again = listing.signIn;
            listing.setSignIn(null);
            again?.();
          }}
        />
      )}
      {listing.conflict && (
        <TwoSaved
          conflict={listing.conflict}
          mine={content}
          names={names}
          style={start.site.style}
          onClose={() => listing.setConflict(null)}
          onKeep={(kept) => {
            const revision = listing.conflict?.newer.revision ?? server.revision;
            listing.setConflict(null);
            void save({ content: kept, revision });
          }}
        />
      )}
      {copying && server.id && <CopyDialog id={server.id} title={content.title} site={start.site} onClose={() => setCopying(false)} />}
      {comparing?.subject && (
        <SideBySide
          subject={comparing.subject}
          id={server.id}
          revision={server.revision}
          mine={content}
          nameOf={(id) => names.get(id)}
          style={start.site.style}
          onClose={() => setComparing(null)}
        />
      )}
      {making && (
        <MakeDialog
          kind={making.kind}
          name={making.name}
          known={making.kind === 'venues' ? venues : organizers}
          onClose={() => setMaking(null)}
          onTake={(id) => {
            if (making.kind === 'venues') setContent((c) => ({ ...c, venueIds: [...new Set([...c.venueIds, id])] }));
            else takeOrganizers([...new Set([...content.organizerIds, id])]);
            setMaking(null);
          }}
          onMade={(made, more) => {
            if (making.kind === 'venues') {
              const facts = { setUp: 0, capacity: null, hours: null, access: false, placed: made.placed === true, binned: false };
              setVenues([...venues, { ...made, more, ...facts }]);
              setContent((c) => ({ ...c, venueIds: [...c.venueIds, made.id] }));
            } else {
              const contact = { name: '', phone: '', mail: '' };
              setOrganizers([...organizers, { ...made, more: '', categoryId: null, contact, binned: false }]);
              setContent((c) => ({ ...c, organizerIds: [...c.organizerIds, made.id] }));
            }
            setMaking(null);
          }}
        />
      )}
      {dirty && <span hidden data-dirty />}
    </section>
  );
}
