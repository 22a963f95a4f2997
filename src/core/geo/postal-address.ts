/** Addresses in the order that a country writes them, by the usual postal forms of the Universal Postal Union's guides. */

/** A postal address by its parts; an empty part is not said. */
export interface AddressParts {
  /** with its house number, as people there write it */
  street: string;
  town: string;
  /** state, province or county */
  region: string;
  postcode: string;
}

/** Lines of parts: s street, t town, r region, p postcode; what is empty falls away. */
const FORMS: Record<string, string> = {
  // street, then postcode and town
  DE: 's|p t',
  AT: 's|p t',
  CH: 's|p t',
  FR: 's|p t',
  BE: 's|p t',
  NL: 's|p t',
  DK: 's|p t',
  NO: 's|p t',
  SE: 's|p t',
  FI: 's|p t',
  IS: 's|p t',
  PT: 's|p t',
  PL: 's|p t',
  CZ: 's|p t',
  GR: 's|p t',
  ES: 's|p t|r',
  IT: 's|p t r',
  MX: 's|p t, r',
  // street, town, then the postcode on a line of its own
  GB: 's|t|r|p',
  IE: 's|t|r|p',
  IN: 's|t p|r',
  // street, then town, region and postcode
  US: 's|t, r p',
  CA: 's|t, r p',
  AU: 's|t r p',
  NZ: 's|t p',
  BR: 's|t, r|p',
  // from the large to the small
  JP: 'p|r t|s',
  KR: 'r t|s|p',
  CN: 'p|r t|s',
  HU: 't|s|p',
};
const OTHERWISE = 's|t|r p';

/** Countries whose form is known, ISO 3166-1 alpha-2. */
export const COUNTRIES: readonly string[] = Object.keys(FORMS).sort();

/** The lines of an address as its country writes them; an unknown country is written street first. */
export function addressLines(parts: AddressParts, country: string): string[] {
  const of: Record<string, string> = { s: parts.street, t: parts.town, r: parts.region, p: parts.postcode };
  return (FORMS[country] ?? OTHERWISE)
    .split('|')
    .map((line) =>
      line
        .replace(/[strp]/g, (key) => (of[key] ?? '').trim())
        .replace(/\s+/g, ' ')
        .replace(/^[\s,]+|[\s,]+$/g, '')
        .replace(/ ,/g, ','),
    )
    .filter(Boolean);
}
