/** The listing's editor: an index of sections, the form as one page, and the rail with Dates and Proof. */
import { Redo2, Undo2 } from 'lucide-react';
import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { ATTENDANCE, type Cost, type ListingContent, SHORT_TITLE_FITS, SUMMARY_SHOWN } from '@/core/listing/content';
import { type ProofField, proofOf, stopsPublishing } from '@/core/proof/proof';
import { STANDINGS } from '@/core/recurrence/model';
import { webAddress } from '@/core/text/text';
import type { EditorStart } from '@/core/listing/editor';
import { MakeDialog, SignInAgain, TwoSaved } from './Dialogs';
import { Check, Select, Text } from '../fields/fields';
import { Picker } from './Picker';
import { Picture } from './parts/Picture';
import { DatesRail } from './parts/Dates';
import { ProofRail } from './parts/ProofRail';
import { When } from './parts/When';
import { railOf } from '@/core/listing/rail';
import { dropKept } from './kept';
import { useClashes } from './use-clashes';
import { type Listing, useListing } from './use-listing';

const Writing = lazy(() => import('./Writing'));

const SECTIONS = [
  ['what', 'What'],
  ['when', 'When'],
  ['where', 'Where'],
  ['who', 'Who'],
  ['details', 'Details'],
  ['picture', 'Picture'],
  ['stage', 'Stage'],
] as const;
const SECTION_OF: Record<ProofField, string> = {
  title: 'what',
  shortTitle: 'what',
  categories: 'what',
  summary: 'what',
  text: 'what',
  when: 'when',
  venues: 'where',
  online: 'where',
  organizers: 'who',
  cost: 'details',
  website: 'details',
  contact: 'details',
  picture: 'picture',
};
const STAGE_WORDS = {
  draft: 'Draft',
  'in-review': 'In review',
  published: 'Published',
  withdrawn: 'Withdrawn',
  binned: 'In the bin',
} as const;

export default function ListingEditor({ start }: { start: EditorStart }) {
  const listing = useListing(start);
  const { content, setContent, server, dirty, errors, note, busy, save } = listing;
  const [cover, setCover] = useState(start.picture);
  const [venues, setVenues] = useState(start.venues);
  const [organizers, setOrganizers] = useState(start.organizers);
  const [making, setMaking] = useState<{ kind: 'venues' | 'organizers'; name: string } | null>(null);
  const rail = useMemo(() => railOf(content, start.site.today, start.site.horizon), [content, start.site]);
  const clashes = useClashes(rail, content, server.id, start.site.zone);
  const proof = useMemo(
    () => proofOf(content, { today: start.site.today, horizon: start.site.horizon, style: start.site.style, pictureAlt: cover?.alt }),
    [content, cover, start.site],
  );
  const error = (name: string): string | undefined => errors.get(name) ?? [...errors].find(([field]) => field.startsWith(`${name}.`))?.[1];
  const goTo = (field: ProofField): void => {
    const section = document.getElementById(SECTION_OF[field]);
    section?.scrollIntoView({ block: 'start' });
    const inside =
      section?.querySelector<HTMLElement>(`[name="${field}"]`) ?? section?.querySelector<HTMLElement>('input, select, button, [tabindex]');
    inside?.focus({ preventScroll: true });
  };
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
    () => new Map([...venues, ...organizers, ...start.categories].map((c) => [c.id, c.name])),
    [venues, organizers, start.categories],
  );
  return (
    <section aria-label="Listing">
      <Head listing={listing} start={start} stopped={stopsPublishing(proof)} />
      <div className="editor">
        <div className="index">
          <nav aria-label="Sections">
            {SECTIONS.map(([id, name]) => (
              <a key={id} href={`#${id}`}>
                {name}
              </a>
            ))}
          </nav>
        </div>
        <div className="sheet">
          {start.submission && (
            <div className="note" style={{ marginTop: 14 }}>
              Sent in by {start.submission.sender}.{start.submission.where && <> Where, in their words: “{start.submission.where}”.</>}
              {start.submission.who && <> Who: “{start.submission.who}”.</>}
              {start.submission.message && <> They add: “{start.submission.message}”</>}
            </div>
          )}
          {listing.found && (
            <div className="note warn" role="alert" style={{ marginTop: 14 }}>
              This browser has something that you typed and did not save, from before the listing was saved again.{' '}
              <button
                type="button"
                className="link"
                onClick={() => {
                  setContent(() => listing.found?.content ?? content);
                  listing.setFound(null);
                }}
              >
                Put it here
              </button>{' '}
              <button
                type="button"
                className="link"
                onClick={() => {
                  dropKept(localStorage, start.userId, server.id);
                  listing.setFound(null);
                }}
              >
                Drop it
              </button>
            </div>
          )}
          <What content={content} setContent={setContent} start={start} error={error} />
          <When
            content={content}
            setContent={setContent}
            site={start.site}
            rail={rail}
            error={error('recurrence') ?? error('when') ?? error('changes')}
          />
          <section className="part" id="where">
            <h2>Where</h2>
            <div className="grid">
              <Select
                label="Kind of place"
                value={content.attendance}
                options={ATTENDANCE.map(
                  (a) => [a, { 'in-person': 'In person', online: 'Online', both: 'In person and online' }[a]] as const,
                )}
                onChange={(attendance) => setContent({ attendance })}
              />
              {content.attendance !== 'online' && (
                <Picker
                  label="Venues"
                  choices={venues}
                  chosen={content.venueIds}
                  onChange={(venueIds) => setContent({ venueIds })}
                  onMake={start.mayMake ? (name) => setMaking({ kind: 'venues', name }) : undefined}
                  error={error('venueIds')}
                />
              )}
              {content.attendance !== 'in-person' && (
                <Text
                  label="Online address"
                  name="online"
                  type="url"
                  value={content.onlineAddress}
                  onChange={(onlineAddress) => setContent({ onlineAddress })}
                  error={error('onlineAddress') ?? error('online')}
                  hint="Begins with https://"
                />
              )}
            </div>
          </section>
          <section className="part" id="who">
            <h2>Who</h2>
            <Picker
              label="Organizers"
              choices={organizers}
              chosen={content.organizerIds}
              onChange={(organizerIds) => setContent({ organizerIds })}
              onMake={start.mayMake ? (name) => setMaking({ kind: 'organizers', name }) : undefined}
              error={error('organizerIds')}
            />
          </section>
          <Details content={content} setContent={setContent} currency={start.site.currency} error={error} />
          <Picture
            cover={cover}
            onCover={(next) => {
              setCover(next);
              if (next?.id !== content.pictureId) setContent({ pictureId: next?.id ?? null });
            }}
            error={error('pictureId') ?? error('picture')}
          />
          <StagePart listing={listing} start={start} error={error} />
        </div>
        <aside className="rail" aria-label="Dates and Proof">
          <div>
            <DatesRail content={content} setContent={setContent} rail={rail} clashes={clashes} site={start.site} venues={venues} />
            <ProofRail notes={proof} goTo={goTo} />
          </div>
        </aside>
      </div>
      <span className="hidden-words" role="status">
        {busy ? 'Saving' : (note?.text ?? '')}
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
      {making && (
        <MakeDialog
          kind={making.kind}
          name={making.name}
          onClose={() => setMaking(null)}
          onMade={(made, more) => {
            const choice = { ...made, more };
            if (making.kind === 'venues') {
              setVenues([...venues, choice]);
              setContent((c) => ({ ...c, venueIds: [...c.venueIds, made.id] }));
            } else {
              setOrganizers([...organizers, choice]);
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

function Head({ listing, start, stopped }: { listing: Listing; start: EditorStart; stopped: boolean }) {
  const { content, server, dirty, busy, note, keptAt, save, act } = listing;
  const isPublic = server.stage === 'published';
  const preview = async (): Promise<void> => {
    // The window opens with the click; the page comes once the copy is saved.
    const tab = window.open('', '_blank');
    if (dirty || server.id === null) {
      if (!(await save())) {
        tab?.close();
        return;
      }
    }
    const id = location.pathname.split('/').at(-1);
    if (tab) tab.location.href = `/desk/listings/${id}/preview`;
    else location.assign(`/desk/listings/${id}/preview`);
  };
  const publishWords = isPublic ? 'Publish changes' : 'Publish';
  return (
    <div className="editor-head">
      <h1>{content.title.trim() || 'New listing'}</h1>
      <span className={`stage ${server.stage}`}>{STAGE_WORDS[server.stage]}</span>
      <span className="small quiet">
        {busy
          ? 'Saving …'
          : dirty
            ? keptAt
              ? 'kept in this browser, not saved yet'
              : 'not saved yet'
            : server.edited
              ? 'saved; readers do not see the changes yet'
              : ''}
      </span>
      {note && (
        <span className={`small ${note.tone === 'bad' ? 'red' : ''}`} role={note.tone === 'bad' ? 'alert' : undefined} data-note>
          {note.text} {note.link && <a href={note.link.href}>{note.link.text}</a>}
        </span>
      )}
      <div className="end">
        <button
          type="button"
          className="button icon"
          aria-label="Undo"
          title="Undo (Ctrl+Z)"
          onClick={() => listing.undo?.()}
          disabled={!listing.undo}
        >
          <Undo2 size={16} aria-hidden />
        </button>
        <button
          type="button"
          className="button icon"
          aria-label="Redo"
          title="Redo (Ctrl+Shift+Z)"
          onClick={() => listing.redo?.()}
          disabled={!listing.redo}
        >
          <Redo2 size={16} aria-hidden />
        </button>
        {isPublic && (
          <a className="button" href={`/what/${server.address}`}>
            The page
          </a>
        )}
        <button type="button" className="button" onClick={() => void preview()} disabled={busy}>
          Preview
        </button>
        <button type="button" className="button" onClick={() => void save()} disabled={busy}>
          {isPublic ? 'Save working copy' : 'Save draft'}
        </button>
        {start.mayPublish ? (
          <button
            type="button"
            className="button main"
            onClick={() => void act('publish')}
            disabled={busy || (isPublic && !dirty && !server.edited)}
            title={stopped ? 'Proof stops it; press to see what' : undefined}
          >
            {publishWords}
          </button>
        ) : (
          <button
            type="button"
            className="button main"
            onClick={() => void act('review')}
            disabled={busy || (server.stage === 'in-review' && !dirty)}
          >
            Send for review
          </button>
        )}
      </div>
    </div>
  );
}

interface PartProps {
  content: ListingContent;
  setContent: Listing['setContent'];
  error: (name: string) => string | undefined;
}

function What({ content, setContent, start, error }: PartProps & { start: EditorStart }) {
  const { summary, shortTitle, title } = content;
  return (
    <section className="part" id="what">
      <h2>What</h2>
      <div className="grid">
        <Text
          label="Title"
          name="title"
          value={title}
          maxLength={160}
          onChange={(value) => setContent({ title: value })}
          error={error('title')}
        />
        <Text
          label="Short title"
          name="shortTitle"
          value={shortTitle}
          maxLength={60}
          onChange={(value) => setContent({ shortTitle: value })}
          error={error('shortTitle')}
          hint={`Shown where room is short, in the month; about ${SHORT_TITLE_FITS} characters fit a line. ${shortTitle ? `${shortTitle.length} now.` : 'Empty: the title.'}`}
        />
        <Picker
          label="Categories"
          hint={
            content.categoryIds.length ? 'The first gives the mark.' : start.fallback ? `None: it stands under “${start.fallback}”.` : ''
          }
          choices={start.categories}
          chosen={content.categoryIds}
          onChange={(categoryIds) => setContent({ categoryIds })}
          error={error('categoryIds') ?? error('categories')}
        />
        <Text
          label="Summary"
          name="summary"
          rows={2}
          value={summary}
          maxLength={400}
          onChange={(value) => setContent({ summary: value })}
          error={error('summary')}
          hint={`One or two sentences. ${summary.length} characters; lists show ${Math.min(summary.length, SUMMARY_SHOWN.list)} of them, search engines ${Math.min(summary.length, SUMMARY_SHOWN.search)}.`}
        />
        <div className="field">
          <span className="label" id="text-label">
            Text
          </span>
          <Suspense fallback={<div className="writing">…</div>}>
            <Writing html={content.text} labelId="text-label" onChange={(text) => setContent({ text })} />
          </Suspense>
          {error('text') && (
            <span className="wrong" role="alert">
              {error('text')}
            </span>
          )}
        </div>
      </div>
    </section>
  );
}

function Details({ content, setContent, currency, error }: PartProps & { currency: string }) {
  const { cost, contact } = content;
  const kinds: Record<Cost['kind'], Cost> = {
    unsaid: { kind: 'unsaid' },
    free: { kind: 'free' },
    amount: { kind: 'amount', amount: '', currency },
    words: { kind: 'words', words: '' },
  };
  return (
    <section className="part" id="details">
      <h2>Details</h2>
      <div className="grid">
        <div className="cols">
          <Select
            label="Cost"
            value={cost.kind}
            options={
              [
                ['unsaid', 'not said'],
                ['free', 'Free'],
                ['amount', 'An amount'],
                ['words', 'In words'],
              ] as const
            }
            onChange={(kind) => setContent({ cost: kinds[kind] })}
          />
          {cost.kind === 'amount' && (
            <Text
              label={`Amount in ${cost.currency}`}
              name="cost"
              value={cost.amount}
              onChange={(amount) => setContent({ cost: { ...cost, amount: amount.replace(',', '.') } })}
              error={error('cost')}
              hint="Such as 8 or 12.50"
            />
          )}
          {cost.kind === 'words' && (
            <Text
              label="In words"
              name="cost"
              value={cost.words}
              maxLength={120}
              onChange={(words) => setContent({ cost: { ...cost, words } })}
              error={error('cost')}
            />
          )}
        </div>
        <Text
          label="Website"
          name="website"
          type="url"
          value={content.website}
          onChange={(website) => setContent({ website })}
          error={error('website')}
        />
        <div className="cols">
          <Text
            label="Contact name"
            name="contact"
            value={contact.name}
            maxLength={120}
            onChange={(name) => setContent({ contact: { ...contact, name } })}
            error={error('contact')}
          />
          <Text
            label="Phone"
            type="tel"
            value={contact.phone}
            maxLength={60}
            onChange={(phone) => setContent({ contact: { ...contact, phone } })}
          />
          <Text
            label="Mail"
            type="email"
            value={contact.mail}
            maxLength={200}
            onChange={(mail) => setContent({ contact: { ...contact, mail } })}
          />
        </div>
        <Text
          label="Access"
          rows={2}
          value={content.access}
          maxLength={600}
          onChange={(access) => setContent({ access })}
          hint="Steps, hearing loop, parking, what to bring"
        />
        <Check
          label="Headline: give it more weight wherever it shows"
          checked={content.headline}
          onChange={(headline) => setContent({ headline })}
        />
      </div>
    </section>
  );
}

const STANDING_WORDS = {
  'going-ahead': 'Going ahead',
  postponed: 'Postponed',
  'moved-online': 'Moved online',
  rescheduled: 'Rescheduled',
  cancelled: 'Cancelled',
} as const;

function StagePart({ listing, start, error }: { listing: Listing; start: EditorStart; error: PartProps['error'] }) {
  const { content, setContent, server, act, busy } = listing;
  const [address, setAddress] = useState(server.address);
  useEffect(() => setAddress(server.address), [server.address]);
  return (
    <section className="part" id="stage">
      <h2>Stage</h2>
      <div className="grid">
        <div className="cols">
          <Select
            label="Standing of all its dates"
            value={content.standing}
            options={STANDINGS.map((s) => [s, STANDING_WORDS[s]] as const)}
            onChange={(standing) => setContent({ standing })}
          />
          {content.standing !== 'going-ahead' && (
            <Text
              label="Why, for readers"
              value={content.standingNote}
              maxLength={300}
              onChange={(standingNote) => setContent({ standingNote })}
            />
          )}
        </div>
        <Check
          label="By address only: in no list, feed or search engine"
          checked={content.visibility === 'address-only'}
          onChange={(on) => setContent({ visibility: on ? 'address-only' : 'public' })}
        />
        {server.id && (
          <div className="row">
            <div style={{ flex: '1 1 260px' }}>
              <Text
                label="Web address"
                name="address"
                value={address}
                onChange={setAddress}
                error={error('address')}
                hint={`/what/${webAddress(address, '…')}${start.oldAddresses.length ? `; old ones lead here: ${start.oldAddresses.join(', ')}` : ''}`}
              />
            </div>
            <button
              type="button"
              className="button"
              disabled={busy || address === server.address}
              onClick={() => void act('address', address)}
            >
              Change the address
            </button>
          </div>
        )}
        <div className="row">
          {server.stage === 'published' && start.mayPublish && (
            <button type="button" className="button" disabled={busy} onClick={() => void act('withdraw')}>
              Withdraw from readers
            </button>
          )}
          {(server.stage === 'withdrawn' || server.stage === 'binned') && (
            <button type="button" className="button" disabled={busy} onClick={() => void act('restore')}>
              Make it a draft again
            </button>
          )}
          {server.id && server.stage !== 'binned' && (
            <button type="button" className="button" disabled={busy} onClick={() => void act('bin')}>
              Put in the bin
            </button>
          )}
        </div>
        {start.history.length > 0 && (
          <details>
            <summary className="small">Lately</summary>
            <ul className="small" style={{ paddingLeft: 18, listStyle: 'disc' }}>
              {start.history.map((h) => (
                <li key={h.revision}>
                  {h.byName} {h.what}, {h.at.slice(0, 16).replace('T', ' ')} UTC
                </li>
              ))}
            </ul>
          </details>
        )}
      </div>
    </section>
  );
}
