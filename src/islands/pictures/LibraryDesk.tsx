/** The library's own place to drop pictures; what came in stands above the others until the page is read anew. */
import { siteAddress } from '@/client/site-root';
import { useState } from 'react';
import { DropPlace } from './DropPlace';
import { SendingList } from './SendingList';
import { Thumb } from './Thumb';
import { type Sent, useSending } from './use-sending';
import { picturesWords } from '@/words/desk';

const w = picturesWords.libraryDesk;

export default function LibraryDesk() {
  const [fresh, setFresh] = useState<Sent[]>([]);
  const sending = useSending((picture) => setFresh((all) => [picture, ...all.filter((p) => p.id !== picture.id)]));
  return (
    <div className="library-desk">
      <DropPlace label={w.addPictures()} hint={w.orDropThemHere()} onFiles={sending.take} />
      <SendingList {...sending} />
      {fresh.length > 0 && (
        <section
          className="contact-sheet grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-y-4 gap-x-3.5 mt-3.5"
          aria-label={w.justAdded()}
        >
          {fresh.map((picture) => (
            <a
              key={picture.id}
              className="frame block no-underline text-inherit bg-transparent border-b-2 border-b-rule pb-1 text-left min-w-0 hover:border-tide"
              href={siteAddress(`/desk/pictures/${picture.id}`)}
            >
              <Thumb picture={picture} />
              <span>{picture.alt || <span className="amber">{w.sayWhatItShows()}</span>}</span>
            </a>
          ))}
        </section>
      )}
    </div>
  );
}
