/** The part of the command line that computes only: `dates` and `read`. A bundle of its own, so that it starts at once. */
import { parseArgs } from 'node:util';
import { dates } from './dates';
import { sentenceOf } from './lines';
import { read } from './read';

const HELP = `Plain Almanac, dates and phrases

  almanac dates --start 2027-03-07T07:40 [--rrule RULE …] [--zone America/Halifax] [--from DAY] [--to DAY]
                [--rdate START,… ] [--exdate START,… ] [--break 2027-08-01/2027-08-31 …]
                                      the dates of a rule, one a line; a year of them unless --to is given
  almanac dates --stdin               for each line {"id","tzid","dtstart","rrule","rdates","exdates","window":{"from","to"}}
                                      a line {"id","dates"} or {"id","error"}
  almanac read "PHRASE" [--now 2027-03-10T10:00] [--zone America/Halifax]
                                      what a phrase such as "every Tuesday 7pm until June" says, as JSON
  almanac read --stdin                the same for each line {"id","text","now","zone"}
`;

const text = { type: 'string' } as const;
const texts = { type: 'string', multiple: true } as const;

async function main(): Promise<void> {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      help: { type: 'boolean', short: 'h' },
      stdin: { type: 'boolean' },
      start: text,
      rrule: texts,
      zone: text,
      from: text,
      to: text,
      rdate: texts,
      exdate: texts,
      break: texts,
      now: text,
    },
  });
  if (values.help) {
    process.stdout.write(HELP);
    return;
  }
  const [command, phrase] = positionals;
  if (command === 'read') await read(phrase, values);
  else await dates(values);
}

// A reader that has seen enough, such as head, is no failure.
process.stdout.on('error', (error: NodeJS.ErrnoException) => process.exit(error.code === 'EPIPE' ? 0 : 1));

main().then(
  () => undefined,
  (error: unknown) => {
    const code = (error as NodeJS.ErrnoException).code;
    console.error(code?.startsWith('ERR_PARSE_ARGS') ? (error as Error).message : sentenceOf(error));
    process.exit(1);
  },
);
