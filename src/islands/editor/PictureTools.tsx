/** What can be said of the picture that is chosen in the text: its side, its width, what it shows, where it leads. */
import type { Editor } from '@tiptap/react';
import { useState } from 'react';
import { pictureLink, SIDES, type Side, type TextPicture, type Width, WIDTHS } from '@/core/picture/in-text';
import { Select, Text } from '../fields/fields';
import { editorWords } from '@/words/desk';

const w = editorWords.pictureTools;

const SIDE_WORDS: Record<Side, string> = { middle: w.byItself(), left: w.leftTextBesideIt(), right: w.rightTextBesideIt() };
const WIDTH_WORDS: Record<Width, string> = { full: w.fullWidth(), half: w.half(), third: w.aThird() };

export function PictureTools({ editor }: { editor: Editor }) {
  const now = editor.getAttributes('image') as TextPicture & { alt: string | null };
  const [link, setLink] = useState(now.link);
  const [wrong, setWrong] = useState<string>();
  const set = (part: Partial<TextPicture & { alt: string }>): void => {
    editor.commands.updateAttributes('image', part);
  };
  const leave = (typed: string): void => {
    const address = typed.trim() ? pictureLink(typed) : '';
    setWrong(address === undefined ? w.aLinkIsWritten() : undefined);
    if (address === undefined) return;
    setLink(address);
    set({ link: address });
  };
  return (
    <fieldset className="m-0 border border-b-0 border-ink-3 bg-wash p-2" aria-label={w.theChosenPicture()}>
      <div className="grid grid-cols-[repeat(auto-fit,minmax(150px,1fr))] gap-3 items-start">
        <Select
          label={w.side()}
          value={now.side}
          options={SIDES.map((side) => [side, SIDE_WORDS[side]] as const)}
          onChange={(side) => set({ side })}
        />
        <Select
          label={w.width()}
          value={now.width}
          options={WIDTHS.map((width) => [width, WIDTH_WORDS[width]] as const)}
          onChange={(width) => set({ width })}
        />
        <Text label={w.whatItShows()} value={now.alt ?? ''} maxLength={300} onChange={(alt) => set({ alt })} hint={w.emptyAsInThe()} />
        <Text label={w.leadsTo()} value={link} maxLength={500} onChange={setLink} onLeave={leave} error={wrong} hint={w.emptyNowhere()} />
      </div>
      <button
        type="button"
        className="button small mt-2 bg-transparent min-w-7.5 min-h-7 px-1.75 rounded-xs aria-pressed:bg-ink aria-pressed:text-sheet"
        onClick={() => editor.chain().focus().deleteSelection().run()}
      >
        {w.takeItOut()}
      </button>
    </fieldset>
  );
}
