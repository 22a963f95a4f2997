/** `almanac places`: files of addresses, in which places are found; taken in, listed, taken away. */
import { resolved, withSite } from './exchange';
import { CliError, EXIT } from './problem';

interface Kept {
  name: string;
  addresses: number;
  streets: number;
  leftOut: number;
  credit: string;
}

interface Added extends Omit<Kept, 'credit'> {
  unit: 'line' | 'feature';
  doubles: number;
  guessed: number;
  wrong: { line: number; reason: string }[];
  columns: [heading: string, field: string][];
  replaced: boolean;
}

export interface PlacesFlags {
  /** `street=Strasse,lat=Breite` */
  columns: string | undefined;
  credit: string | undefined;
}

const USAGE =
  'almanac places, almanac places add FILE [--columns "street=HEADING,lat=HEADING"] [--credit WORDS], almanac places remove NAME';

/** How often it is said how far a long reading is, in milliseconds. */
const SAID_EVERY = 2_000;

const count = (n: number, one: string, many: string): string => `${n.toLocaleString('en')} ${n === 1 ? one : many}`;

function chosenColumns(said: string | undefined): Record<string, string> {
  const pairs = (said ?? '').split(',').filter((pair) => pair.trim());
  return Object.fromEntries(
    pairs.map((pair) => {
      const at = pair.indexOf('=');
      const [field, heading] = [pair.slice(0, at).trim(), pair.slice(at + 1).trim()];
      if (at < 1 || !heading) throw new CliError('--columns is written "street=Street name,number=No,lat=Y,lng=X".', EXIT.refused);
      return [field, heading];
    }),
  );
}

/** Takes a file in (`add FILE`), takes one away (`remove NAME`), or lists them. */
export async function placesCommand(action: string | undefined, name: string | undefined, flags: PlacesFlags): Promise<void> {
  if (action !== 'add' && (flags.columns !== undefined || flags.credit !== undefined)) throw new CliError(USAGE, EXIT.refused);
  if (action === 'add' && name) return add(resolved(name), flags);
  if (action === 'remove' && name) {
    const gone = (await withSite((ask) => ask('places-remove', { name }))) as Kept;
    console.log(`${count(gone.addresses, 'address', 'addresses')} of ${gone.name} gone.`);
    return;
  }
  if (action) throw new CliError(USAGE, EXIT.refused);
  const files = (await withSite((ask) => ask('places', {}))) as Kept[];
  for (const { name: file, addresses, streets, leftOut, credit } of files)
    console.log(
      `${file}: ${count(addresses, 'address', 'addresses')} in ${count(streets, 'street', 'streets')}${leftOut ? `, ${count(leftOut, 'row', 'rows')} left out` : ''}${credit ? `. ${credit}` : ''}`,
    );
  if (!files.length) console.log('The site has no address file yet: almanac places add FILE.csv');
}

async function add(path: string, { columns, credit }: PlacesFlags): Promise<void> {
  const chosen = chosenColumns(columns);
  const added = (await withSite(async (ask) => {
    const timer = setInterval(() => {
      void ask('places-state', {}).then(
        (state) => {
          if (state) console.log(`… ${count((state as { done: number }).done, 'street', 'streets')} so far`);
        },
        () => undefined,
      );
    }, SAID_EVERY);
    return ask('places-add', { path, columns: chosen, credit }).finally(() => clearInterval(timer));
  })) as Added;
  for (const line of linesOf(added)) console.log(line);
  if (added.leftOut) process.exitCode = EXIT.partly;
}

function* linesOf({ name, unit, addresses, streets, doubles, guessed, leftOut, wrong, columns, replaced }: Added): Generator<string> {
  yield `Read as: ${columns.map(([heading, field]) => (heading === field ? field : `${heading} = ${field}`)).join(', ')}.`;
  for (const { line, reason } of wrong) yield `left out ${unit} ${line.toLocaleString('en')}: ${reason}.`;
  if (leftOut > wrong.length) yield `… and ${count(leftOut - wrong.length, 'more', 'more')} left out.`;
  if (doubles) yield `${count(doubles, 'row is', 'rows are')} another flat or entrance of a house that is there already.`;
  if (guessed) yield `${count(guessed, 'row names', 'rows name')} no town: the nearest town was taken.`;
  yield `${name}: ${count(addresses, 'address', 'addresses')} in ${count(streets, 'street', 'streets')}, ${count(leftOut, 'row', 'rows')} left out${replaced ? '; they take the place of those that were there' : ''}.`;
}
