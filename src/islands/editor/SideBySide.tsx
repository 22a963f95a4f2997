/** Two listings that may be one, field by field; one may be merged into the other. */
import { siteAddress, openPage } from '@/client/site-root';
import { useEffect, useState } from 'react';
import { ask, sayFailure, send } from '@/client/api';
import type { ListingContent } from '@/core/listing/content';
import { type ContentField, FIELDS } from '@/core/listing/fields';
import { type NameOf, sayField } from '@/core/listing/say-field';
import { differences } from '@/core/listing/merge';
import type { Style } from '@/core/phrase/format';
import type { Subject } from '@/core/validation/note';
import { Box } from '../fields/Box';
import { editorWords } from '@/words/desk';

const w = editorWords.sideBySide;

interface SideBySideProps {
  subject: Subject;
  /** the listing that is open; only a kept one can be merged */
  id: string | null;
  revision: number;
  mine: ListingContent;
  nameOf: NameOf;
  style: Style;
  onClose: () => void;
}

const ALWAYS: ContentField[] = ['title', 'recurrence', 'venueIds', 'organizerIds'];

export function SideBySide({ subject, id, revision, mine, nameOf, style, onClose }: SideBySideProps) {
  const [theirs, setTheirs] = useState<ListingContent | null>(null);
  const [wrong, setWrong] = useState('');
  useEffect(() => {
    void ask<{ content: ListingContent }>(`/api/v1/listings/${subject.listingId}`).then((outcome) => {
      if (outcome.kind === 'done') setTheirs(outcome.value.content);
      else setWrong(sayFailure(outcome));
    });
  }, [subject.listingId]);
  const differing = theirs ? differences(mine, theirs) : [];
  const fields = [...ALWAYS, ...differing.filter((f) => !ALWAYS.includes(f) && f !== 'pictureId' && f !== 'galleryIds')];
  const merge = async (): Promise<void> => {
    const outcome = await send<{ into: string }>('POST', `/api/v1/listings/${id}/merge`, { into: subject.listingId, revision });
    if (outcome.kind === 'done') openPage(`/desk/listings/${outcome.value.into}`);
    else setWrong(sayFailure(outcome));
  };
  return (
    <Box title={w.isIt({ title: subject.title })} onClose={onClose}>
      {wrong && (
        <p className="note bad" role="alert">
          {wrong}
        </p>
      )}
      {theirs && (
        <table className="ledger sides">
          <thead>
            <tr>
              <th />
              <th>{w.thisListing()}</th>
              <th>
                <a href={siteAddress(`/desk/listings/${subject.listingId}`)}>{w.theOther()}</a>
              </th>
            </tr>
          </thead>
          <tbody>
            {fields.map((field) => (
              <tr key={field} className={differing.includes(field) ? 'differs' : undefined}>
                <th scope="row">{FIELDS[field].label}</th>
                <td>{sayField(field, mine, nameOf, style).slice(0, 300) || '–'}</td>
                <td>{sayField(field, theirs, nameOf, style).slice(0, 300) || '–'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div className="row mt-3">
        {id && (
          <button type="button" className="button main" disabled={!theirs} onClick={() => void merge()}>
            {w.mergeThisIntoThe()}
          </button>
        )}
        <button type="button" className="button" onClick={onClose}>
          {w.close()}
        </button>
      </div>
      {id && <p className="hint">{w.whatTheOtherLacks()}</p>}
    </Box>
  );
}
