/** Sets a new site up without a browser, or says where one does it. */
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { CliError, EXIT } from './problem';
import { dataFolder, isRunning, openSite } from './server-process';
import { setupWords } from './serve';

export async function setupCommand({ json, file }: { json: boolean; file: string | undefined }): Promise<void> {
  if (!json) {
    if (file) throw new CliError('Say that it is a file with answers: almanac setup --json FILE', EXIT.refused);
    if (!(await isRunning(dataFolder())))
      throw new CliError('No server is running on this data folder. Start it with almanac serve: it prints the address.');
    console.log(await setupWords(path.join(dataFolder(), 'almanac.sock')));
    return;
  }
  const answers = readAnswers(file);
  const site = await openSite();
  try {
    const made = (await site.ask('setup', answers)) as { name: string; zone: string; currency: string; mail: string };
    console.log(`“${made.name}” is set up: ${made.zone}, ${made.currency}. ${made.mail} can sign in as coordinator.`);
  } finally {
    await site.leave();
  }
}

function readAnswers(file: string | undefined): unknown {
  if (!file) throw new CliError('Name the file: almanac setup --json FILE', EXIT.refused);
  if (file !== '-' && !existsSync(file)) throw new CliError(`There is no file ${file}.`, EXIT.refused);
  try {
    return JSON.parse(readFileSync(file === '-' ? 0 : file, 'utf8'));
  } catch {
    throw new CliError('That file is not JSON.', EXIT.refused);
  }
}
