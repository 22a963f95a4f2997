/**
 * When, in plain words: what is typed fills the controls, and a control that changes rewrites the words. What is not
 * understood is underlined; what has two readings comes with both as buttons.
 */
import { useCallback, useId, useMemo, useState } from 'react';
import type { EditorStart } from '@/core/listing/editor';
import { sayRecurrence } from '@/core/phrase/say';
import { type Fragment, MOST_CHARACTERS, type Reading, readPhrase } from '@/core/phrase/read/read-phrase';
import { type StoredRecurrence, toStored } from '@/core/recurrence/stored';
import { readRecurrence } from '@/core/dates/repeat-choices';
import { Questions } from '../../fields/Questions';
import { editorWords } from '@/words/desk';

const w = editorWords.phrase;

interface PhraseProps {
  recurrence: StoredRecurrence | null;
  /** words that are still open, kept with the listing */
  words: string;
  /** new dates where the words give some, and the words themselves while anything in them is open */
  onChange: (recurrence: StoredRecurrence | null, words: string) => void;
  site: EditorStart['site'];
}

/** What somebody typed, and the recurrence that came of it: while that is the listing's, the words stay as they were typed. */
interface Typed {
  text: string;
  made: StoredRecurrence | null;
}

export function Phrase({ recurrence, words, onChange, site }: PhraseProps) {
  const [typed, setTyped] = useState<Typed | null>(null);
  const id = useId();
  const sentence = useMemo(() => {
    const parsed = readRecurrence(recurrence);
    return parsed ? sayRecurrence(parsed, site.style, { whole: true, weekStart: site.firstWeekday }) : '';
  }, [recurrence, site]);
  // Words that are open stay in the field, whatever the controls below become.
  const shown = words ? { text: typed?.text.trim() === words ? typed.text : words } : typed && typed.made === recurrence ? typed : null;
  const text = shown?.text ?? sentence;
  const zone = recurrence?.zone ?? site.zone;
  const read = useCallback(
    (phrase: string): Reading =>
      readPhrase({
        ...{ phrase, now: { day: site.today, minute: site.minute }, zone },
        ...{ weekStart: site.firstWeekday, style: site.style, sunAt: site.sunAt ?? undefined },
      }),
    [zone, site],
  );
  const reading = useMemo(() => (shown ? read(shown.text) : null), [shown, read]);
  const type = (next: string): void => {
    const phrase = next.slice(0, MOST_CHARACTERS);
    const { recurrence: found, problems } = read(phrase);
    const made = found ? toStored(found) : null;
    setTyped({ text: phrase, made: made ?? recurrence });
    onChange(made, made && !problems.length ? '' : phrase.trim());
  };
  // Nothing is open any more: the words are said in full, with the year and the first date.
  const leave = (): void => {
    // An offer beside them stays too: its line would go from under the pointer that is pressing what stands below.
    if (reading?.recurrence && !reading.unread.length && !reading.problems.length && !reading.asides.length) setTyped(null);
  };
  return (
    <div className="field phrase">
      <label htmlFor={id}>{w.inWords()}</label>
      <div className="phrase-box relative grid bg-sheet">
        <Marked text={text} unread={reading?.unread ?? []} />
        <textarea
          className="[grid-area:1_/_1] font-sans text-[17px] leading-[1.45] py-2 px-2.75 whitespace-pre-wrap wrap-anywhere relative bg-transparent! resize-none h-full border-tide!"
          id={id}
          name="when"
          rows={2}
          value={text}
          maxLength={MOST_CHARACTERS}
          spellCheck={false}
          placeholder={w.every1stAnd3rd()}
          aria-describedby={`${id}s`}
          onChange={(e) => type(e.target.value)}
          onBlur={(e) => {
            // By keyboard the answers below are reached from here: the words stay as they are until one is taken.
            if (!(e.relatedTarget instanceof Node && e.currentTarget.closest('.phrase')?.contains(e.relatedTarget))) leave();
          }}
          onKeyDown={(e) => {
            if (e.key !== 'Enter') return;
            e.preventDefault();
            leave();
          }}
        />
      </div>
      <div id={`${id}s`} role="status" className="phrase-notes grid gap-1 empty:hidden">
        {reading && !reading.recurrence && text.trim() !== '' && <NoDate reading={reading} style={site.style} />}
        {reading && <Questions reading={reading} text={text} onText={type} />}
        {words && recurrence && (
          <p className="small flex flex-wrap gap-1.5 items-center text-amber">
            <button
              type="button"
              className="link"
              onClick={() => {
                setTyped(null);
                onChange(null, '');
              }}
            >
              {w.takeTheseWordsOut()}
            </button>
          </p>
        )}
      </div>
    </div>
  );
}

/** Why no date came of the words. */
function NoDate({ reading, style }: { reading: Reading; style: EditorStart['site']['style'] }) {
  return (
    <p className="small flex flex-wrap gap-1.5 items-center text-amber">
      {reading.understood
        ? w.noDateIsPut({ recurrence: sayRecurrence(reading.understood, style) })
        : reading.problems.length
          ? w.noDateIsPutWhile()
          : w.noDateIsIn()}
    </p>
  );
}

/** The words again below what is typed, with what was not understood underlined. */
function Marked({ text, unread }: { text: string; unread: readonly Fragment[] }) {
  const parts: React.ReactNode[] = [];
  let at = 0;
  for (const { from, to } of unread) {
    parts.push(
      text.slice(at, from),
      <mark
        className="bg-transparent text-transparent underline decoration-wavy decoration-[1.5px] decoration-amber underline-offset-[4px]"
        key={from}
      >
        {text.slice(from, to)}
      </mark>,
    );
    at = to;
  }
  return (
    <div
      className="echo [grid-area:1_/_1] font-sans text-[17px] leading-[1.45] py-2 px-2.75 whitespace-pre-wrap wrap-anywhere [forced-color-adjust:none] border border-transparent text-transparent min-h-16.5"
      aria-hidden="true"
    >
      {parts}
      {text.slice(at)}
    </div>
  );
}
