/** The operator's command line. It never opens the database itself: it asks the running server, or starts one for the while. */
import { parseArgs } from 'node:util';
import { exportCommand, importCommand } from './exchange';
import { exportSite, importSite } from './archive';
import { backupCommand, checkCommand, moveCommand, restoreCommand } from './backup';
import { publishCommand } from './publish';
import { setupCommand } from './setup';
import { addUser } from './user';
import { addressesCommand } from './addresses';
import { mapCommand } from './map';
import { placesCommand } from './places';
import { CliError, EXIT } from './problem';
import { openSite, VERSION } from './server-process';
import { serve } from './serve';

const HELP = `Plain Almanac

  almanac serve [--demo] [--fresh]    serve the site (PORT, HOST and ALMANAC_DATA override 4321, 127.0.0.1 and data/)
  almanac setup                       where a site that nobody has begun with is set up: another address, good for one hour
  almanac setup --json FILE           sets it up from a file instead (- is standard input; docs/operating.md has an example)
  almanac user add --name NAME --mail ADDRESS [--role coordinator|editor|contributor]
                                      make an account; asks for the password, or takes it on standard input
  almanac addresses FILE [--dry-run] [--replace]
                                      takes a table of old and new addresses (two columns): those of a former site lead on to
                                      this one's pages. --replace forgets those that the table does not have
  almanac addresses                   all of them, and how often each was followed
  almanac map add FILE                puts streets on the map from a PMTiles archive of the site’s area (docs/operating.md says where
                                      such files come from); a file that the map cannot be drawn from is refused with the reason
  almanac map add FILE.geojson [--credit WORDS]
                                      puts a drawing of your own on the map: paths, parks, buildings, names, over the coasts, or
                                      with land of its own in place of them; what is not understood is said
  almanac map                         what the map has; almanac map remove [NAME] takes it off
  almanac places add FILE [--columns "street=HEADING,lat=HEADING"] [--credit WORDS]
                                      takes a file of addresses (a table or GeoJSON points), in which “Find a place” then looks;
                                      the columns are found by their headings, or named. A file of the same name is replaced
  almanac places                      which files there are; almanac places remove NAME takes one away
  almanac rebuild                     make the date index anew and report differences
  almanac import FILE [--dry-run] [--publish] [--json] [--source NAME] [--order day-month|month-day] [--zone NAME=ZONE …]
                 [--same|--other] [--make-places] [--make-people] [--make-categories]
                                      bring a file (iCalendar, CSV, JSON) in as drafts, or published; or only say what
                                      would happen. --make-… makes what the file names and the site has not; without it
                                      that is left out and said. --same and --other answer for events that may be here
                                      already: they are the same, or others; without an answer they are left out
  almanac export [FILE] [--json|--csv|--dates]
                                      everything published as iCalendar; the site as JSON without its pictures’ files; all
                                      listings as a table; or their dates
  almanac export --site FILE.zip      the whole site with its pictures: listings with both copies and versions, places,
                                      settings; without accounts and mails
  almanac import --site FILE          makes an empty site what such a file holds
  almanac backup FILE.zip             everything in the database at one moment, accounts and mails too, while the site is served
  almanac restore FILE.zip            makes an empty folder, or an empty DATABASE_URL, what a backup holds; older ones are brought up
  almanac publish FOLDER [--address ADDRESS] [--server ADDRESS] [--months N]
                                      the public site as plain files for any web server: those that changed since last time.
                                      --address is where they will be reached, --server where the site itself answers what
                                      files cannot (searching, sending in); without it that is left out. Views reach 12
                                      months ahead. What is not said is as last time; none forgets an address
  almanac check [--mend]              looks whether what is derived is right: links, what readers see, next dates, pictures;
                                      makes it right, and goes through all dates
  almanac move postgres://…           moves the data folder’s database to a server; with DATABASE_URL set, almanac move FOLDER
                                      moves it back
  almanac dates, almanac read         the dates of a rule, and what a phrase says; see almanac dates --help
  almanac seed                        fill an empty demo with invented events
  almanac version
  almanac --help

Ends with 0 when all is done, 1 when it failed, 2 when arguments or the file are refused, 3 when part of a file was left out,
or a text links to what the site does not have.
`;

const OPTIONS = {
  help: { type: 'boolean', short: 'h' },
  demo: { type: 'boolean' },
  fresh: { type: 'boolean' },
  name: { type: 'string' },
  mail: { type: 'string' },
  role: { type: 'string' },
  'dry-run': { type: 'boolean' },
  publish: { type: 'boolean' },
  json: { type: 'boolean' },
  site: { type: 'boolean' },
  csv: { type: 'boolean' },
  dates: { type: 'boolean' },
  source: { type: 'string' },
  order: { type: 'string' },
  zone: { type: 'string', multiple: true },
  same: { type: 'boolean' },
  other: { type: 'boolean' },
  mend: { type: 'boolean' },
  replace: { type: 'boolean' },
  address: { type: 'string' },
  server: { type: 'string' },
  months: { type: 'string' },
  columns: { type: 'string' },
  credit: { type: 'string' },
  'make-places': { type: 'boolean' },
  'make-people': { type: 'boolean' },
  'make-categories': { type: 'boolean' },
} as const;

const read = () => parseArgs({ allowPositionals: true, options: OPTIONS });
type Values = ReturnType<typeof read>['values'];

async function main(): Promise<void> {
  const { values, positionals } = read();
  const [command, sub, rest] = positionals;
  if (!values.help && command) checkArguments(command, positionals, Object.keys(values));
  if (values.help || !command) {
    process.stdout.write(HELP);
    return;
  }
  switch (command) {
    case 'serve':
      await serve({ demo: values.demo === true, fresh: values.fresh === true });
      return;
    case 'version':
      console.log(VERSION);
      return;
    case 'user':
      if (sub !== 'add') throw new CliError('Say what to do: almanac user add --name NAME --mail ADDRESS');
      await addUser({ name: values.name, mail: values.mail, role: values.role });
      return;
    case 'setup':
      await setupCommand({ json: values.json === true, file: sub });
      return;
    case 'addresses':
      await addressesCommand(sub, { dryRun: values['dry-run'] === true, replace: values.replace === true });
      return;
    case 'map':
      await mapCommand(sub, rest, values.credit);
      return;
    case 'places':
      await placesCommand(sub, rest, { columns: values.columns, credit: values.credit });
      return;
    case 'rebuild':
      await rebuild();
      return;
    case 'import':
      if (values.site === true) {
        alone('import', Object.keys(values));
        await importSite(sub);
      } else await importListings(sub, values);
      return;
    case 'export':
      if (values.site === true) {
        alone('export', Object.keys(values));
        await exportSite(sub);
        return;
      }
      await exportCommand({ file: sub, json: values.json === true, csv: values.csv === true, dates: values.dates === true });
      return;
    case 'backup':
      await backupCommand(sub);
      return;
    case 'restore':
      await restoreCommand(sub);
      return;
    case 'check':
      await checkCommand(values.mend === true);
      return;
    case 'publish':
      await publishCommand({ folder: sub, address: values.address, server: values.server, months: values.months });
      return;
    case 'move':
      await moveCommand(sub);
      return;
    case 'seed':
      await ask('seed', (result) =>
        console.log(`${result.listings} listings, ${result.submissions} waiting, ${result.pictures} pictures.`),
      );
      return;
    default:
      throw noCommand(command);
  }
}

/** `almanac import FILE`: what it is told by flags. */
async function importListings(file: string | undefined, values: Values): Promise<void> {
  await importCommand({
    file,
    dryRun: values['dry-run'] === true,
    publish: values.publish === true,
    json: values.json === true,
    source: values.source,
    order: values.order,
    zones: values.zone ?? [],
    same: values.same === true,
    other: values.other === true,
    make: {
      venue: values['make-places'] === true,
      organizer: values['make-people'] === true,
      category: values['make-categories'] === true,
    },
  });
}

/** What each command takes: how many words behind it, and which flags. */
const TAKES: Readonly<Record<string, { words: number; flags: readonly string[] }>> = {
  serve: { words: 0, flags: ['demo', 'fresh'] },
  version: { words: 0, flags: [] },
  setup: { words: 1, flags: ['json'] },
  user: { words: 1, flags: ['name', 'mail', 'role'] },
  addresses: { words: 1, flags: ['dry-run', 'replace'] },
  map: { words: 2, flags: ['credit'] },
  places: { words: 2, flags: ['columns', 'credit'] },
  rebuild: { words: 0, flags: [] },
  seed: { words: 0, flags: [] },
  backup: { words: 1, flags: [] },
  restore: { words: 1, flags: [] },
  check: { words: 0, flags: ['mend'] },
  move: { words: 1, flags: [] },
  publish: { words: 1, flags: ['address', 'server', 'months'] },
  export: { words: 1, flags: ['json', 'csv', 'dates', 'site'] },
  import: {
    words: 1,
    flags: 'dry-run publish json site source order zone same other make-places make-people make-categories'.split(' '),
  },
};

/** `--site` means the whole site: no other flag says anything beside it. */
function alone(command: string, flags: readonly string[]): void {
  const other = flags.find((flag) => flag !== 'site');
  if (other) throw new CliError(`almanac ${command} --site takes the whole site; it does not take --${other}.`, EXIT.refused);
}

const noCommand = (command: string): CliError => new CliError(`There is no command “${command}”; almanac --help lists them.`, EXIT.refused);

/** Refuses what a command does not know, by name, before anything is done. */
function checkArguments(command: string, positionals: readonly string[], flags: readonly string[]): void {
  const takes = Object.hasOwn(TAKES, command) ? TAKES[command] : undefined;
  if (!takes) throw noCommand(command);
  const extra = positionals[1 + takes.words];
  if (extra !== undefined)
    throw new CliError(`almanac ${command} does not take “${extra}”; almanac --help says what it takes.`, EXIT.refused);
  const strange = flags.find((flag) => !takes.flags.includes(flag));
  if (strange) throw new CliError(`almanac ${command} does not take --${strange}; almanac --help says what it takes.`, EXIT.refused);
}

interface Report {
  listings: number;
  dates: number;
  differed: { slug: string; missing: number; surplus: number }[];
  submissions: number;
  pictures: number;
}

async function ask(command: string, say: (result: Report) => void): Promise<void> {
  const site = await openSite();
  try {
    say((await site.ask(command)) as Report);
  } finally {
    await site.leave();
  }
}

async function rebuild(): Promise<void> {
  await ask('rebuild', ({ listings, dates, differed }) => {
    for (const d of differed) console.log(`${d.slug}: ${d.missing} missing, ${d.surplus} surplus`);
    console.log(`${listings} listings, ${dates} dates, ${differed.length} differed.`);
  });
}

main().then(
  () => undefined,
  (error: unknown) => {
    const code = (error as NodeJS.ErrnoException).code;
    const known = error instanceof CliError || code?.startsWith('ERR_PARSE_ARGS');
    console.error(known ? (error as Error).message : `Something failed: ${error instanceof Error ? error.message : 'unknown'}`);
    const refused = error instanceof CliError ? error.exit : code?.startsWith('ERR_PARSE_ARGS') ? EXIT.refused : EXIT.failed;
    process.exit(refused);
  },
);
