/** What stands over the listing's form for a moment: signing in again, two versions, a copy, two listings side by side, making a party. */
import type { EditorStart } from '@/core/listing/editor';
import type { ValidationNote } from '@/core/validation/note';
import { CopyDialog } from './CopyDialog';
import { SignInAgain, TwoSaved } from './Dialogs';
import { MakeDialog } from './MakeDialog';
import { SideBySide } from './SideBySide';
import type { Listing } from './use-listing';
import type { Parties } from './use-parties';

/** What was asked for by a press. */
export type Shown = { kind: 'copy' } | { kind: 'compare'; note: ValidationNote } | null;

interface EditorDialogsProps {
  listing: Listing;
  start: EditorStart;
  parties: Parties;
  /** the names of all that a content refers to, by id */
  names: Map<string, string>;
  shown: Shown;
  onClose: () => void;
}

export function EditorDialogs({ listing, start, parties, names, shown, onClose }: EditorDialogsProps) {
  const { content, server, signIn, conflict } = listing;
  const { making } = parties;
  const { style } = start.site;
  return (
    <>
      {signIn && (
        <SignInAgain
          onClose={() => listing.setSignIn(null)}
          onDone={() => {
            listing.setSignIn(null);
            signIn();
          }}
        />
      )}
      {conflict && (
        <TwoSaved
          conflict={conflict}
          mine={content}
          names={names}
          style={style}
          onClose={() => listing.setConflict(null)}
          onKeep={(kept) => {
            listing.setConflict(null);
            void listing.save({ content: kept, revision: conflict.newer.revision });
          }}
        />
      )}
      {shown?.kind === 'copy' && server.id && <CopyDialog id={server.id} title={content.title} site={start.site} onClose={onClose} />}
      {shown?.kind === 'compare' && shown.note.subject && (
        <SideBySide
          subject={shown.note.subject}
          id={server.id}
          revision={server.revision}
          mine={content}
          nameOf={(id) => names.get(id)}
          style={style}
          onClose={onClose}
        />
      )}
      {making && (
        <MakeDialog
          kind={making.kind}
          name={making.name}
          known={parties[making.kind]}
          onClose={() => parties.setMaking(null)}
          onTake={(id) => parties.take(making.kind, id)}
          onMade={(made, more) => parties.add(making.kind, made, more)}
        />
      )}
    </>
  );
}
