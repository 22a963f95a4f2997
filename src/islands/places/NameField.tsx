/** The name of a venue or organizer, with those that are likely the same named while it is typed. */
import { siteAddress } from '@/client/site-root';
import { useEffect, useMemo, useRef, useState } from 'react';
import { likeNames } from '@/core/match/names';
import { placesWords } from '@/words/desk';

const w = placesWords.nameField;

export interface KnownPlace {
  id: string;
  name: string;
  more: string;
}

interface NameFieldProps {
  value: string;
  /** others of its kind */
  known: KnownPlace[];
  /** where they are edited: `/desk/venues/` */
  base: string;
  wrong?: string | undefined;
}

export default function NameField({ value, known, base, wrong }: NameFieldProps) {
  const [name, setName] = useState(value);
  const field = useRef<HTMLInputElement>(null);
  // What was typed before the page was alive counts too.
  useEffect(() => setName(field.current?.value ?? ''), []);
  return (
    <div className="field">
      <label htmlFor="name">{w.nameWord()}</label>
      <input
        ref={field}
        id="name"
        name="name"
        required
        maxLength={120}
        defaultValue={value}
        onChange={(e) => setName(e.target.value)}
        aria-invalid={wrong ? true : undefined}
        aria-describedby={wrong ? 'name-wrong' : undefined}
      />
      <LikeNames name={name} known={known} link={(id) => siteAddress(`${base}${id}`)} />
      {wrong && (
        <span className="wrong" id="name-wrong">
          {wrong}
        </span>
      )}
    </div>
  );
}

/** "Is it one of these?" with each a link, or a button that takes it. */
export function LikeNames({
  name,
  known,
  link,
  onTake,
}: {
  name: string;
  known: readonly KnownPlace[];
  link?: (id: string) => string;
  onTake?: (place: KnownPlace) => void;
}) {
  const like = useMemo(() => (name.trim().length < 3 ? [] : likeNames(name, known).slice(0, 3)), [name, known]);
  return (
    <span role="status">
      {like.length > 0 && (
        <span className="amber small">
          {w.likelyThereAlready()}{' '}
          {like.map(({ item }, i) => (
            <span key={item.id}>
              {i > 0 && ', '}
              {onTake ? (
                <button type="button" className="link" onClick={() => onTake(item)}>
                  {w.take({ name: item.name })}
                </button>
              ) : (
                <a href={link?.(item.id)}>{item.name}</a>
              )}
              {item.more && ` (${item.more})`}
            </span>
          ))}
        </span>
      )}
    </span>
  );
}
