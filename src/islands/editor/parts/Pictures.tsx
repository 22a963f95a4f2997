/** A listing's pictures in their order: the first is its cover, the others its gallery. Sent at once, described in place. */
import { siteAddress } from '@/client/site-root';
import { useEffect, useRef, useState } from 'react';
import { send } from '@/client/api';
import type { PictureChoice } from '@/core/listing/editor';
import { pixelsOf } from '@/core/picture/crop';
import { COVER_WIDTH } from '@/core/validation/picture-checks';
import { Text } from '../../fields/fields';
import { ChooseDialog } from '../../pictures/ChooseDialog';
import { DropPlace } from '../../pictures/DropPlace';
import { SendingList } from '../../pictures/SendingList';
import { useSending } from '../../pictures/use-sending';
import { PictureOrder } from './PictureOrder';
import { editorWords } from '@/words/desk';

const w = editorWords.pictures;

interface PicturesProps {
  pictures: readonly PictureChoice[];
  onKnown: (picture: PictureChoice) => void;
  ids: readonly string[];
  /** takes the order that is, gives the order that will be */
  setIds: (change: (ids: readonly string[]) => string[]) => void;
  error: string | undefined;
}

export function Pictures({ pictures, onKnown, ids, setIds, error }: PicturesProps) {
  const [choosing, setChoosing] = useState(false);
  const [open, setOpen] = useState<string | null>(null);
  const add = (picture: PictureChoice): void => {
    onKnown(picture);
    setIds((now) => (now.includes(picture.id) ? [...now] : [...now, picture.id]));
    // Whoever is describing one is not taken from it by the next that comes in.
    setOpen((now) => now ?? picture.id);
  };
  const sending = useSending(add);
  const shown = ids.flatMap((id) => pictures.find((p) => p.id === id) ?? []);
  const described = shown.find((p) => p.id === (open ?? ids[0])) ?? shown[0];
  return (
    <section className="part pt-4 scroll-mt-16" id="picture">
      <h2 className="text-[20px] border-b border-b-rule-strong pb-1.75 mb-3">{w.pictures()}</h2>
      <div className="grid gap-3">
        {shown.length > 0 && <PictureOrder pictures={shown} described={described?.id} onOrder={setIds} onDescribe={setOpen} />}
        {described && <Words key={described.id} picture={described} cover={described.id === ids[0]} onChange={onKnown} />}
        <DropPlace
          label={ids.length ? w.addPictures() : w.chooseAPicture()}
          hint={ids.length ? w.dropOrPasteThem() : w.theFirstIsThe()}
          onFiles={sending.take}
        >
          <button type="button" className="button small" onClick={() => setChoosing(true)}>
            {w.fromTheLibrary()}
          </button>
        </DropPlace>
        <SendingList {...sending} />
        {error && (
          <span className="wrong" role="alert">
            {error}
          </span>
        )}
      </div>
      {choosing && (
        <ChooseDialog
          chosen={ids}
          several
          onClose={() => setChoosing(false)}
          onChoose={(chosen) => {
            setChoosing(false);
            for (const picture of chosen) add(picture);
          }}
        />
      )}
    </section>
  );
}

/** What is said of one picture; kept when its fields are left, for every listing that shows it. */
function Words({ picture, cover, onChange }: { picture: PictureChoice; cover: boolean; onChange: (picture: PictureChoice) => void }) {
  const [said, setSaid] = useState('');
  const [kept, setKept] = useState({ alt: picture.alt, credit: picture.credit });
  const keep = async (): Promise<void> => {
    const { alt, credit } = picture;
    if (alt === kept.alt && credit === kept.credit) return;
    const outcome = await send('PUT', `/api/v1/pictures/${picture.id}`, { alt, credit });
    if (outcome.kind === 'done') setKept({ alt, credit });
    setSaid(outcome.kind === 'done' ? w.kept() : outcome.kind === 'refused' ? outcome.title : w.theDescriptionIsNot());
  };
  const last = useRef(keep);
  last.current = keep;
  // Another picture is described now, or this one was taken off: its words are kept all the same.
  useEffect(() => () => void last.current(), []);
  const { width, height } = pixelsOf(cover ? 'wide' : 'whole', picture);
  return (
    <fieldset
      className="border-t border-t-rule pt-2.5 mt-1 min-w-0 grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 items-start"
      aria-label={w.theChosenPicture()}
      onBlur={() => void keep()}
    >
      <Text
        label={w.whatItShows()}
        rows={2}
        value={picture.alt}
        maxLength={300}
        hint={w.forPeopleWhoCannot()}
        onChange={(alt) => {
          setSaid('');
          onChange({ ...picture, alt });
        }}
      />
      <div className="grid gap-3">
        <Text
          label={w.madeBy()}
          value={picture.credit}
          maxLength={120}
          onChange={(credit) => {
            setSaid('');
            onChange({ ...picture, credit });
          }}
        />
        <span className="hint">
          {w.pixelsOfItAre({ width, height, cover: cover ? 'yes' : 'no' })}
          {cover && width < COVER_WIDTH && <span className="amber">{w.fewForACover()}</span>}.{' '}
          <a href={siteAddress(`/desk/pictures/${picture.id}`)} target="_blank" rel="noreferrer">
            {w.whatStaysInSight()}
          </a>
        </span>
        <span className="hint" role="status">
          {said}
        </span>
      </div>
    </fieldset>
  );
}
