/** One of many, found by typing: a plain list as it comes from the server, a field that finds in it once scripts run. */
import { ChevronDown } from 'lucide-react';
import { type RefObject, useEffect, useRef, useState } from 'react';
import { Button, ComboBox, Input, Label, ListBox, ListBoxItem, Popover, Text } from 'react-aria-components';
import { pick } from '@/core/match/pick';
import { settingsWords } from '@/words/desk';

const w = settingsWords.choices;

/** One of the list: what it is called, and other words that find it. */
export interface ChoiceOption {
  id: string;
  name: string;
  more: string;
}

interface ChoiceFieldProps {
  name: string;
  label: string;
  hint?: string | undefined;
  error?: string | undefined;
  value: string;
  options: readonly ChoiceOption[];
}

/** So many are shown at once; more letters find the others. */
const MOST = 60;

export function ChoiceField(props: ChoiceFieldProps) {
  const plain = useRef<HTMLSelectElement>(null);
  // What somebody chose before scripts ran stays chosen.
  const [value, setValue] = useState<string>();
  useEffect(() => setValue(plain.current?.value ?? props.value), [props.value]);
  return value === undefined ? <Plain {...props} list={plain} /> : <Finding {...props} value={value} />;
}

function Plain({ name, label, hint, error, value, options, list }: ChoiceFieldProps & { list: RefObject<HTMLSelectElement | null> }) {
  return (
    <div className="field">
      <label htmlFor={name}>{label}</label>
      <select ref={list} id={name} name={name} defaultValue={value} aria-invalid={error ? true : undefined}>
        {options.map((option) => (
          <option key={option.id} value={option.id}>
            {option.name}
          </option>
        ))}
      </select>
      {hint && <span className="hint">{hint}</span>}
      {error && <span className="wrong">{error}</span>}
    </div>
  );
}

function Finding({ name, label, hint, error, value, options }: ChoiceFieldProps) {
  const [chosen, setChosen] = useState(value);
  const nameOf = (id: string): string => options.find((option) => option.id === id)?.name ?? '';
  const [typed, setTyped] = useState(nameOf(value));
  // Whoever only opens the list sees all of it, from what is chosen on.
  const asked = typed === nameOf(chosen) ? '' : typed;
  const { shown, total } = asked ? pick(asked, options, MOST) : { shown: options, total: options.length };
  return (
    <ComboBox
      id={`${name}-choice`}
      className="field"
      items={shown}
      inputValue={typed}
      onInputChange={setTyped}
      selectedKey={chosen}
      onSelectionChange={(key) => {
        if (key === null) return;
        setChosen(String(key));
        setTyped(nameOf(String(key)));
      }}
      // What was typed and not chosen is no choice: the field says again what is.
      onBlur={() => setTimeout(() => setTyped(nameOf(chosen)))}
      defaultFilter={() => true}
      menuTrigger="focus"
      isInvalid={error !== undefined}
      allowsEmptyCollection
    >
      <Label>{label}</Label>
      <div className="flex">
        <Input id={name} className="box min-w-0" onFocus={(event) => asked || event.currentTarget.select()} autoComplete="off" />
        <Button className="button -ml-px px-2" aria-label={w.showAll()}>
          <ChevronDown size={16} aria-hidden />
        </Button>
      </div>
      {/* The form carries the code, not the words that stand for it. */}
      <input type="hidden" name={name} value={chosen} data-told />
      {hint && (
        <Text slot="description" className="hint">
          {hint}
        </Text>
      )}
      {error && <span className="wrong">{error}</span>}
      <Popover className="w-(--trigger-width) min-w-65 bg-sheet border border-rule-strong shadow-lg max-h-72! overflow-auto">
        <ListBox<ChoiceOption>
          className="py-1 outline-none"
          renderEmptyState={() => <p className="m-0 px-2.5 py-1 text-ink-2">{w.noneOf({ typed })}</p>}
        >
          {(option) => (
            <ListBoxItem
              id={option.id}
              textValue={option.name}
              className="py-1 px-2.5 cursor-pointer data-focused:bg-tide-wash data-selected:font-bold outline-none"
            >
              {option.name}
            </ListBoxItem>
          )}
        </ListBox>
        {total > shown.length && <p className="m-0 px-2.5 py-1 text-[13px] text-ink-2">{w.moreLetters({ n: total - shown.length })}</p>}
      </Popover>
    </ComboBox>
  );
}
