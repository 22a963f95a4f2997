/** How it stands, who sees it, its address and its history. */
import { siteAddress } from '@/client/site-root';
import { useEffect, useState } from 'react';
import { optionsOf } from '@/core/listing/fields';
import { slugOf } from '@/core/text/text';
import type { EditorStart } from '@/core/listing/editor';
import { isoDay } from '@/core/day/day';
import { DayField } from '../../fields/DayField';
import { Check, Select, Text } from '../../fields/fields';
import type { Listing } from '../use-listing';
import { ByTime } from './ByTime';
import type { PartProps } from './part';
import { PlainField } from './PlainField';
import { editorWords } from '@/words/desk';

const w = editorWords.stage;

export function StagePart({ listing, start, error }: { listing: Listing; start: EditorStart; error: PartProps['error'] }) {
  const { content, setContent, server } = listing;
  // What readers have, or will have by itself, is an editor's to take down or to give another address.
  const left = !start.mayPublish && (server.stage === 'published' || server.stage === 'scheduled');
  return (
    <section className="part pt-4 scroll-mt-16" id="stage">
      <h2 className="text-[20px] border-b border-b-rule-strong pb-1.75 mb-3">{w.stage()}</h2>
      <div className="grid gap-3">
        <div className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 items-start">
          <Select
            label={w.statusOfAllIts()}
            value={content.eventStatus}
            options={optionsOf('eventStatus')}
            onChange={(eventStatus) => setContent({ eventStatus })}
          />
          {content.eventStatus !== 'going-ahead' && (
            <PlainField field="eventStatusNote" content={content} setContent={setContent} error={error} />
          )}
        </div>
        <OnTop content={content} setContent={setContent} today={start.site.today} />
        <Check
          label={w.byAddressOnlyIn()}
          checked={content.visibility === 'address-only'}
          onChange={(on) => setContent({ visibility: on ? 'address-only' : 'public' })}
        />
        {start.mayPublish && <ByTime listing={listing} start={start} error={error} />}
        <Slug listing={listing} start={start} error={error} left={left} />
        <StageButtons listing={listing} start={start} left={left} />
        {server.id && (
          <a className="small" href={siteAddress(`/desk/listings/${server.id}/versions`)}>
            {w.allVersionsSideBy()}
          </a>
        )}
        {start.history.length > 0 && (
          <details>
            <summary className="small">{w.lately()}</summary>
            <ul className="small list-disc pl-[18px]">
              {start.history.map((h) => (
                <li key={h.revision}>
                  {h.byName} {h.what}, {h.at}
                </li>
              ))}
            </ul>
          </details>
        )}
      </div>
    </section>
  );
}

interface SlugProps {
  listing: Listing;
  start: EditorStart;
  error: PartProps['error'];
  /** readers have it, and this person may not publish */
  left: boolean;
}

/** The address: wanted for a new listing, changed for one that is there. */
function Slug({ listing, start, error, left }: SlugProps) {
  const { content, server, act, busy } = listing;
  const [slug, setSlug] = useState(server.slug);
  useEffect(() => setSlug(server.slug), [server.slug]);
  return (
    <>
      {!server.id && (
        <Text
          label={w.webAddress()}
          name="address"
          value={listing.wantedSlug}
          onChange={listing.setWantedSlug}
          error={error('slug')}
          hint={w.what({ slug: slugOf(listing.wantedSlug || content.title, '…'), wantedSlug: listing.wantedSlug ? 'yes' : 'no' })}
        />
      )}
      {server.id && !left && (
        <div className="row">
          <div className="[flex:1_1_260px]">
            <Text
              label={w.webAddress()}
              name="address"
              value={slug}
              onChange={setSlug}
              error={error('slug')}
              hint={w.what2({
                slug: slugOf(slug, '…'),
                more: start.oldSlugs.length ? w.oldOnesLeadHere({ oldSlugs: start.oldSlugs.join(', ') }) : '',
              })}
            />
          </div>
          <button type="button" className="button" disabled={busy || slug === server.slug} onClick={() => void act('slug', { slug })}>
            {w.changeTheAddress()}
          </button>
        </div>
      )}
    </>
  );
}

/** What takes it away from readers, and what brings it back as a draft. */
function StageButtons({ listing: { server, act, busy }, start, left }: Pick<SlugProps, 'listing' | 'start' | 'left'>) {
  return (
    <div className="row">
      {server.stage === 'published' && start.mayPublish && (
        <button type="button" className="button" disabled={busy} onClick={() => void act('withdraw')}>
          {w.withdrawFromReaders()}
        </button>
      )}
      {(server.stage === 'withdrawn' || server.stage === 'binned') && (
        <button type="button" className="button" disabled={busy} onClick={() => void act('restore')}>
          {w.makeItADraft()}
        </button>
      )}
      {server.id && server.stage !== 'binned' && !left && (
        <button type="button" className="button" disabled={busy} onClick={() => void act('bin')}>
          {w.putInTheBin()}
        </button>
      )}
    </div>
  );
}

/** Lists that begin today show it first, until a day. */
function OnTop({ content, setContent, today }: Pick<PartProps, 'content' | 'setContent'> & { today: number }) {
  return (
    <div className="row">
      <Check
        label={w.onTopOfLists()}
        checked={content.onTopUntil !== null}
        onChange={(on) => setContent({ onTopUntil: on ? isoDay(today + 14) : null })}
      />
      {content.onTopUntil !== null && (
        <DayField label={w.lastDayOnTop()} value={content.onTopUntil} onChange={(onTopUntil) => setContent({ onTopUntil })} />
      )}
    </div>
  );
}
