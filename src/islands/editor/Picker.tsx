/** Several venues, organizers or categories, found by typing, in order; a new one can be made without leaving the form. */
import { type KeyboardEvent, lazy, Suspense, useId, useState } from 'react';
import { fold } from '@/core/text/text';
import type { Choice } from '@/core/listing/editor';

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
  error?: string | undefined;
}

const MOST = 12;

export function Picker({ label, hint, choices, chosen, onChange, onMake, error }: PickerProps) {
  const id = useId();
  const [words, setWords] = useState('');
  const [open, setOpen] = useState(false);
  const [at, setAt] = useState(0);
  const wanted = fold(words).split(' ').filter(Boolean);
  const free = choices.filter((c) => !chosen.includes(c.id));
  const fits = free.filter((c) => wanted.every((w) => fold(`${c.name} ${c.more}`).includes(w))).slice(0, MOST);
  const exact = choices.some((c) => fold(c.name) === fold(words));
  const mayMake = onMake !== undefined && words.trim() !== '' && !exact;
  const count = fits.length + (mayMake ? 1 : 0);
  const take = (index: number): void => {
    const choice = fits[index];
    if (choice) onChange([...chosen, choice.id]);
    else if (mayMake) onMake?.(words.trim());
    setWords('');
    setOpen(false);
    setAt(0);
  };
  const onKey = (event: KeyboardEvent): void => {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      setOpen(true);
      setAt((i) => (count ? (i + (event.key === 'ArrowDown' ? 1 : count - 1)) % count : 0));
    } else if (event.key === 'Enter') {
      event.preventDefault();
      if (open && count) take(at);
    } else if (event.key === 'Escape') setOpen(false);
    else if (event.key === 'Backspace' && !words && chosen.length) onChange(chosen.slice(0, -1));
  };
  return (
    <div className="field">
      <label htmlFor={id}>{label}</label>
      {chosen.length > 0 && (
        <Suspense fallback={<p className="chips">{chosen.map((key) => choices.find((c) => c.id === key)?.name ?? '').join(', ')}</p>}>
          <Chosen label={label} choices={choices} chosen={chosen} onChange={onChange} />
        </Suspense>
      )}
      <div className="picker">
        <input
          id={id}
          className="box"
          role="combobox"
          aria-expanded={open && count > 0}
          aria-controls={`${id}l`}
          aria-autocomplete="list"
          autoComplete="off"
          aria-activedescendant={open && count > 0 ? `${id}o${at}` : undefined}
          aria-describedby={hint ? `${id}h` : undefined}
          value={words}
          placeholder={chosen.length ? 'Add another' : 'Type to find'}
          onChange={(e) => {
            setWords(e.target.value);
            setOpen(true);
            setAt(0);
          }}
          onFocus={() => setOpen(true)}
          onBlur={() => setTimeout(() => setOpen(false), 120)}
          onKeyDown={onKey}
        />
        {open && count > 0 && (
          <div className="found" id={`${id}l`} role="listbox" aria-label={label}>
            {fits.map((c, i) => (
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
            {mayMake && (
              // biome-ignore lint/a11y/useKeyWithClickEvents: the field above has the focus and the keys
              <div
                id={`${id}o${fits.length}`}
                role="option"
                tabIndex={-1}
                aria-selected={at === fits.length}
                onMouseDown={(e) => e.preventDefault()}
                onClick={() => take(fits.length)}
              >
                Make “{words.trim()}” …
              </div>
            )}
          </div>
        )}
      </div>
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
