/** A venue's address and position: found by typing, set on the chart, or written in degrees. */
import { siteAddress } from '@/client/site-root';
import { type KeyboardEvent, useEffect, useId, useState } from 'react';
import { addressLines } from '@/core/geo/postal-address';
import type { FoundPlace } from '@/core/geo/gazetteer';
import type { Chart, Point } from '@/core/geo/geo';
import { rounded } from '@/core/geo/pin';
import { PinChart } from './PinChart';
import { placesWords } from '@/words/desk';

const w = placesWords.placeFields;

const PARTS = ['street', 'town', 'region', 'postcode', 'country', 'island', 'lat', 'lng'] as const;
export type PlaceParts = Record<(typeof PARTS)[number], string> & { areaOnly: boolean };

interface PlaceFieldsProps {
  start: PlaceParts;
  chart: Chart | undefined;
  middle: Point;
  errors: Record<string, string>;
  /** the site's, for a venue that names none */
  country: string;
  /** code and name of those to choose from */
  countries: readonly (readonly [code: string, name: string])[];
  /** a room has its hall's address */
  hall: string | undefined;
}

const EXACTNESS = { house: 'house', street: w.middleOfTheStreet(), landmark: 'landmark', town: 'town', island: 'island' } as const;

/** How exact it is, and who knows it. */
function sourceOf({ exactness, source }: FoundPlace): string {
  if (source === 'world') return w.townOfTheWorld();
  if (source === 'addresses') return w.ofFile({ exactness: EXACTNESS[exactness] });
  if (source === 'service') return w.ofService({ exactness: EXACTNESS[exactness] });
  return source === 'venues' ? w.usedBefore({ exactness: EXACTNESS[exactness] }) : EXACTNESS[exactness];
}

export default function PlaceFields({ start, chart, middle, errors, country, countries, hall }: PlaceFieldsProps) {
  const [parts, setParts] = useState(start);
  const change = (next: Partial<PlaceParts>): void => setParts((before) => ({ ...before, ...next }));
  const lat = parts.lat.trim() === '' ? Number.NaN : Number(parts.lat);
  const lng = parts.lng.trim() === '' ? Number.NaN : Number(parts.lng);
  const pin = Math.abs(lat) <= 90 && Math.abs(lng) <= 180 ? { lat, lng } : null;
  const place = (point: Point): void => {
    const { lat: y, lng: x } = rounded(point);
    change({ lat: String(y), lng: String(x) });
  };
  const text = (name: (typeof PARTS)[number], label: string, hint?: string) => (
    <div className="field">
      <label htmlFor={name}>{label}</label>
      <input
        id={name}
        name={name}
        value={parts[name]}
        inputMode={name === 'lat' || name === 'lng' ? 'decimal' : undefined}
        onChange={(e) => change({ [name]: e.target.value })}
        aria-invalid={errors[name] ? true : undefined}
        aria-describedby={errors[name] ? `${name}-wrong` : undefined}
      />
      {hint && <span className="hint">{hint}</span>}
      {errors[name] && (
        <span className="wrong" id={`${name}-wrong`}>
          {errors[name]}
        </span>
      )}
    </div>
  );
  const lines = addressLines(parts, parts.country || country);
  return (
    <fieldset>
      <legend className="label float-left w-full font-bold [legend+&]:clear-both">{w.whereItIs()}</legend>
      {hall && <p className="note m-0 clear-both">{w.asARoomOf({ hall })}</p>}
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,460px)] gap-4.5 clear-both max-[760px]:grid-cols-1">
        <div className="form">
          <PlaceSearch
            onTake={(match) => {
              const { entry, region, country: there } = match;
              // Another venue's name is no street.
              const street = entry.kind === 'street' || (entry.kind === 'landmark' && match.source === 'site');
              change({
                street: (street ? match.label.split(', ')[0] : undefined) ?? parts.street,
                town: entry.town || parts.town,
                island: entry.island || parts.island,
                region: region || parts.region,
                postcode: match.postcode || parts.postcode,
                country: there && there !== country ? there : parts.country,
              });
              place(match.point);
            }}
          />
          {text('street', w.streetAndNumber())}
          <div className="pair">
            {text('town', w.town())}
            {text('island', w.areaOrIsland())}
          </div>
          <div className="pair">
            {text('region', w.region())}
            {text('postcode', w.postcode())}
            <Country countries={countries} value={parts.country} onChange={(country) => change({ country })} />
          </div>
          {lines.length > 0 && <p className="quiet small m-0">{w.written({ lines: lines.join(' / ') })}</p>}
        </div>
        <div className="form">
          <PinChart chart={chart} pin={pin} middle={middle} areaOnly={parts.areaOnly} onMove={place} />
          <div className="pair">
            {text('lat', w.latitude())}
            {text('lng', w.longitude())}
          </div>
          <label className="check">
            <input type="checkbox" name="areaOnly" checked={parts.areaOnly} onChange={(e) => change({ areaOnly: e.target.checked })} />{' '}
            {w.readersLearnTheArea()}
          </label>
        </div>
      </div>
    </fieldset>
  );
}

function PlaceSearch({ onTake }: { onTake: (match: FoundPlace) => void }) {
  const id = useId();
  const [words, setWords] = useState('');
  const { found, setFound, at, setAt, wrong } = useMatches(words);
  const take = (match: FoundPlace | undefined): void => {
    if (!match) return;
    onTake(match);
    setWords('');
  };
  const onKey = (event: KeyboardEvent): void => {
    if (event.key === 'Enter') {
      // The form is not sent by choosing a place.
      event.preventDefault();
      take(found?.[at]);
    } else if (event.key === 'Escape') setWords('');
    else if (found?.length && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
      event.preventDefault();
      setAt((i) => (i + (event.key === 'ArrowDown' ? 1 : found.length - 1)) % found.length);
    }
  };
  const open = (found?.length ?? 0) > 0;
  return (
    <div className="field">
      <label htmlFor={id}>{w.findAPlace()}</label>
      <div className="picker">
        <input
          id={id}
          className="box"
          role="combobox"
          autoComplete="off"
          aria-expanded={open}
          aria-controls={`${id}l`}
          aria-autocomplete="list"
          aria-activedescendant={open ? `${id}o${at}` : undefined}
          value={words}
          placeholder={w.streetAndNumberOr()}
          onChange={(e) => setWords(e.target.value)}
          onKeyDown={onKey}
          onBlur={() => setTimeout(() => setFound(null), 120)}
        />
        {open && (
          <div className="found" id={`${id}l`} role="listbox" aria-label={w.placesFound()}>
            {found?.map((match, i) => (
              // biome-ignore lint/a11y/useKeyWithClickEvents: the field above has the focus and the keys
              <div
                key={`${match.label} ${match.source} ${match.point.lat} ${match.point.lng}`}
                id={`${id}o${i}`}
                role="option"
                tabIndex={-1}
                aria-selected={i === at}
                onMouseDown={(e) => e.preventDefault()}
                onClick={() => take(match)}
              >
                {match.label} <span className="quiet small">{sourceOf(match)}</span>
              </div>
            ))}
          </div>
        )}
      </div>
      <span className="hint" role="status">
        {wrong || (found?.length === 0 ? w.noPlaceIsCalled() : w.typosAreFineA())}
      </span>
    </div>
  );
}

/** What the gazetteer finds for words, asked a moment after the last letter; which one is marked. */
function useMatches(words: string) {
  const [found, setFound] = useState<FoundPlace[] | null>(null);
  const [at, setAt] = useState(0);
  const [wrong, setWrong] = useState('');
  useEffect(() => {
    if (words.trim().length < 2) {
      setFound(null);
      setWrong('');
      return;
    }
    const leave = new AbortController();
    const timer = setTimeout(() => {
      fetch(siteAddress(`/api/v1/gazetteer?${new URLSearchParams({ words })}`), { signal: leave.signal })
        .then((response) =>
          response.ok ? (response.json() as Promise<{ places: FoundPlace[]; wrong: string }>) : { places: [], wrong: '' },
        )
        .then((answer) => {
          setFound(answer.places);
          setWrong(answer.wrong);
          setAt(0);
        })
        .catch(() => undefined);
    }, 120);
    return () => {
      clearTimeout(timer);
      leave.abort();
    };
  }, [words]);
  return { found, setFound, at, setAt, wrong };
}

interface CountryProps {
  countries: PlaceFieldsProps['countries'];
  value: string;
  onChange: (country: string) => void;
}

function Country({ countries, value, onChange }: CountryProps) {
  return (
    <div className="field">
      <label htmlFor="country">{w.country()}</label>
      <select id="country" name="country" value={value} onChange={(e) => onChange(e.target.value)}>
        <option value="">{w.theSites()}</option>
        {countries.map(([code, name]) => (
          <option key={code} value={code}>
            {name}
          </option>
        ))}
      </select>
    </div>
  );
}
