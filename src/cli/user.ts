/** Makes an account. The password is asked for without showing it, or read from standard input. */
import { createInterface } from 'node:readline/promises';
import { Writable } from 'node:stream';
import { CliError } from './problem';
import { openSite } from './server-process';

export async function addUser({
  name,
  mail,
  role = 'coordinator',
}: {
  name?: string | undefined;
  mail?: string | undefined;
  role?: string | undefined;
}): Promise<void> {
  if (!name || !mail) throw new CliError('Give a name and a mail address: almanac user add --name "Your Name" --mail you@village.example');
  const password = await readPassword();
  const site = await openSite();
  try {
    const made = (await site.ask('user', { name, email: mail, role, password })) as { email: string; role: string };
    console.log(`${made.email} can sign in as ${made.role}.`);
  } finally {
    await site.leave();
  }
}

async function readPassword(): Promise<string> {
  if (!process.stdin.isTTY) {
    let text = '';
    for await (const part of process.stdin) text += String(part);
    return text.replace(/\r?\n$/, '');
  }
  process.stdout.write('Password (at least 12 characters): ');
  const silent = new Writable({ write: (_chunk, _encoding, done) => done() });
  const lines = createInterface({ input: process.stdin, output: silent, terminal: true });
  const password = await lines.question('');
  lines.close();
  process.stdout.write('\n');
  return password;
}
