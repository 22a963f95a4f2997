/** A mail service of a few lines: takes mail, slowly where told, or refuses some. */
import { type AddressInfo, createServer } from 'node:net';

export interface MailService {
  url: string;
  close: () => void;
}

/** @param take is handed each mail's text; `refuse`: whom it does not know; `slow`: how long it thinks before it says that it took one, in ms */
export async function mailService(take: (text: string) => void, { refuse = '\0', slow = 0 } = {}): Promise<MailService> {
  const server = createServer((socket) => {
    let data: string | undefined;
    socket.write('220 ready\r\n');
    socket.on('error', () => undefined);
    socket.on('data', (bytes) => {
      for (const line of bytes.toString().split('\r\n').slice(0, -1)) {
        if (data !== undefined) {
          if (line !== '.') data += `${line}\n`;
          else {
            take(data);
            data = undefined;
            setTimeout(() => socket.write('250 taken\r\n'), slow);
          }
        } else if (line === 'DATA') {
          data = '';
          socket.write('354 go on\r\n');
        } else if (line === 'QUIT') socket.end('221 bye\r\n');
        else socket.write(line.startsWith('RCPT') && line.includes(refuse) ? '550 no such box\r\n' : '250 ok\r\n');
      }
    });
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return { url: `smtp://127.0.0.1:${(server.address() as AddressInfo).port}`, close: () => server.close() };
}
