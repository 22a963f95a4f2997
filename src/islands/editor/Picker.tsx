/** Several venues, organizers or categories, found by typing, in order; a new one can be made without leaving the form. */
import { type KeyboardEvent, lazy, Suspense, useId, useState } from 'react';
import { fold } from '@/core/text/text';
import { pick } from '@/core/match/pick';
import type { Choice } from '@/core/listing/editor';
import { editorWords } from '@/words/desk';

const w = editorWords.picker;

// Dragging weighs as much as the rest of the form: it comes a moment later.
const Chosen = lazy(() => import('./Chosen').then(({ Chosen: part }) => ({ default: part })));

interface PickerProps {
  label: string;
  hint?: string;
  choices: (Choice & { mark?: string })[];
  chosen: string[];
  onChange: (ids: string[]) => void;
  /** offers to make what was typed */
  onMake?: ((name: string) => void) | undefined;
  /** where what is chosen has its own page, for those who may open it */
  pageOf?: ((id: string) => string) | undefined;
  /** the name that Proof's notes lead to */
  name?: string;
  error?: string | undefined;
}

const MOST = 12;
/** Nothing is taken by Enter alone. */
const NONE = -1;

export function Picker({ label, hint, choices, chosen, onChange, onMake, pageOf, name, error }: PickerProps) {
  const id = useId();
  const picking = usePicking({ choices, chosen, onChange, onMake });
  const { words, open, at, count, typed, left, shown } = picking;
  const describedBy = [hint ? `${id}h` : '', left ? `${id}u` : ''].filter(Boolean).join(' ') || undefined;
  return (
    <div className="field">
      <label htmlFor={id}>{label}</label>
      {chosen.length > 0 && (
        <Suspense fallback={<p className="chips">{chosen.map((key) => choices.find((c) => c.id === key)?.name ?? '').join(', ')}</p>}>
          <Chosen label={label} choices={choices} chosen={chosen} onChange={onChange} pageOf={pageOf} />
        </Suspense>
      )}
      <div className="picker">
        <input
          id={id}
          name={name}
          className="box"
          role="combobox"
          aria-expanded={open && count > 0}
          aria-controls={`${id}l`}
          aria-autocomplete="list"
          autoComplete="off"
          aria-activedescendant={open && at !== NONE && count > 0 ? `${id}o${at}` : undefined}
          aria-describedby={describedBy}
          aria-invalid={left || error ? true : undefined}
          value={words}
          placeholder={chosen.length ? w.addAnother() : w.typeToFind()}
          onChange={(e) => picking.type(e.target.value)}
          onFocus={() => picking.setOpen(true)}
          onBlur={() => setTimeout(() => picking.setOpen(false), 120)}
          onKeyDown={picking.onKey}
        />
        {open && (count > 0 || typed !== '') && (
          <Options {...{ id, label, shown, at, typed }} make={picking.make} take={picking.take} said={picking.said} />
        )}
      </div>
      {left && <Leftover id={`${id}u`} typed={typed} make={picking.make} onClear={picking.clean} />}
      {hint && (
        <span className="hint" id={`${id}h`}>
          {hint}
        </span>
      )}
      {error && (
        <span className="wrong" role="alert">
          {error}
        </span>
      )}
    </div>
  );
}

/** What is typed, what fits it, which is marked, and what a key does; the field above has the focus. */
function usePicking({ choices, chosen, onChange, onMake }: Pick<PickerProps, 'choices' | 'chosen' | 'onChange' | 'onMake'>) {
  const [words, setWords] = useState('');
  const [open, setOpen] = useState(false);
  const [walked, setWalked] = useState<number>();
  const free = choices.filter((c) => !chosen.includes(c.id));
  const { shown, total, clear } = pick(words, free, MOST);
  const typed = words.trim();
  const exact = choices.find((c) => fold(c.name) === fold(typed));
  const mayMake = onMake !== undefined && typed !== '' && !exact;
  const count = shown.length + (mayMake ? 1 : 0);
  // Where it is unclear which one is meant, somebody has to say: the arrows, or more letters.
  const alone = clear || (mayMake && !shown.length);
  const at = walked ?? (alone ? 0 : NONE);
  const chosenAlready = exact !== undefined && chosen.includes(exact.id);
  const left = typed !== '' && !open;
  const clean = (): void => {
    setWords('');
    setOpen(false);
    setWalked(undefined);
  };
  const make = mayMake
    ? (): void => {
        onMake(typed);
        clean();
      }
    : undefined;
  const take = (index: number): void => {
    const choice = shown[index];
    if (!choice) {
      make?.();
      return;
    }
    onChange([...chosen, choice.id]);
    clean();
  };
  const walk = (step: 1 | -1): void => {
    setOpen(true);
    if (!count) return;
    const from = at === NONE ? (step > 0 ? -1 : 0) : at;
    setWalked((from + step + count) % count);
  };
  const enter = (): void => {
    if (open && at !== NONE && count) take(at);
  };
  const onKey = (event: KeyboardEvent): void => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp' || event.key === 'Enter') event.preventDefault();
    if (event.key === 'ArrowDown') walk(1);
    else if (event.key === 'ArrowUp') walk(-1);
    else if (event.key === 'Enter') enter();
    else if (event.key === 'Escape') setOpen(false);
    else if (event.key === 'Backspace' && !words && chosen.length) onChange(chosen.slice(0, -1));
  };
  const type = (next: string): void => {
    setWords(next);
    setOpen(true);
    setWalked(undefined);
  };
  const said = sayOptions({ shown: shown.length, total, typed, sure: clear || walked !== undefined, chosenAlready });
  return { words, open, setOpen, at, count, typed, left, shown, said, make, take, clean, type, onKey };
}

interface OptionsProps {
  id: string;
  label: string;
  shown: (Choice & { mark?: string })[];
  /** the marked one, by its place */
  at: number;
  typed: string;
  make: (() => void) | undefined;
  take: (index: number) => void;
  said: string;
}

/** What fits, and how many more there are. The field above has the focus and the keys. */
function Options({ id, label, shown, at, typed, make, take, said }: OptionsProps) {
  return (
    <div className="found">
      <div id={`${id}l`} role="listbox" aria-label={label}>
        {shown.map((c, i) => (
          // biome-ignore lint/a11y/useKeyWithClickEvents: the field above has the focus and the keys
          <div
            key={c.id}
            id={`${id}o${i}`}
            role="option"
            tabIndex={-1}
            aria-selected={i === at}
            onMouseDown={(e) => e.preventDefault()}
            onClick={() => take(i)}
          >
            {c.mark && <span dangerouslySetInnerHTML={{ __html: c.mark }} />} {c.name}{' '}
            {c.more && <span className="quiet small">{c.more}</span>}
          </div>
        ))}
        {make && (
          // biome-ignore lint/a11y/useKeyWithClickEvents: the field above has the focus and the keys
          <div
            id={`${id}o${shown.length}`}
            role="option"
            tabIndex={-1}
            aria-selected={at === shown.length}
            onMouseDown={(e) => e.preventDefault()}
            onClick={make}
          >
            {w.make({ typed })}
          </div>
        )}
      </div>
      <p className="m-0 px-2.5 py-1 text-[13px] text-ink-2">{said}</p>
    </div>
  );
}

interface Said {
  shown: number;
  total: number;
  typed: string;
  /** is one of them marked? */
  sure: boolean;
  chosenAlready: boolean;
}

function sayOptions({ shown, total, typed, sure, chosenAlready }: Said): string {
  if (total > shown) return w.ofTypeMoreTo({ shown, total });
  if (!total) return chosenAlready ? w.thatOneIsChosen() : w.nothingIsCalled({ typed });
  return sure || !typed ? w.enterTakesTheMarked() : w.chooseWithTheArrows();
}

/** What was typed and is none of the choices: it stays, and says that it is not chosen. */
function Leftover({ id, typed, make, onClear }: { id: string; typed: string; make: (() => void) | undefined; onClear: () => void }) {
  return (
    <span className="wrong" id={id} role="status">
      {w.isNotChosen({ typed })}{' '}
      {make && (
        <button type="button" className="link" onClick={make}>
          {w.make2({ typed })}
        </button>
      )}{' '}
      <button type="button" className="link" onClick={onClear}>
        {w.clearIt()}
      </button>
    </span>
  );
}
