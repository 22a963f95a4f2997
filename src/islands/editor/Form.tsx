/** The listing's form as one page, section under section. */
import type { Rail } from '@/core/dates/rail';
import type { EditorStart, PictureChoice } from '@/core/listing/editor';
import { Beginnings } from './parts/Beginnings';
import { Details } from './parts/Details';
import { Where, Who } from './parts/Parties';
import { Pictures } from './parts/Pictures';
import { StagePart } from './parts/Stage';
import { What } from './parts/What';
import { When } from './parts/When';
import { Words } from './parts/Words';
import type { Listing } from './use-listing';
import type { Parties } from './use-parties';

interface FormProps {
  listing: Listing;
  start: EditorStart;
  parties: Parties;
  pictures: readonly PictureChoice[];
  setPictures: (change: (all: PictureChoice[]) => PictureChoice[]) => void;
  rail: Rail;
}

export function Form({ listing, start, parties, pictures, setPictures, rail }: FormProps) {
  const { content, setContent, errors } = listing;
  const error = (name: string): string | undefined => errors.get(name) ?? [...errors].find(([field]) => field.startsWith(`${name}.`))?.[1];
  const part = { content, setContent, error };
  const party = { ...part, parties, mayMake: start.mayMake };
  return (
    <div className="bg-sheet pt-1.5 pb-20 px-6 min-w-0 max-[700px]:pt-1 max-[700px]:pb-15 max-[700px]:px-3.5">
      <Beginnings listing={listing} start={start} />
      <What {...part} isNew={!start.id} />
      <When
        content={content}
        setContent={setContent}
        site={start.site}
        rail={rail}
        error={error('recurrence') ?? error('when') ?? error('changes')}
      />
      <Where {...party} />
      <Who {...party} />
      <Words {...part} start={start} />
      <Details {...part} currency={start.site.currency} />
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
  );
}
