/**
 * `npm run mailbox`: a stand-in for a mail server and for the mailboxes behind it. It takes every message, on loopback, and shows it here.
 * For trying a server that confirms addresses: start it with KADREL_MAIL=smtp://127.0.0.1:4190.
 */
import { pathToFileURL } from 'node:url';
import PostalMime from 'postal-mime';
import { SMTPServer } from 'smtp-server';
import { say } from './say.mjs';

const PORT = 4190;

/** @param take called with each message: to whom, what about, and its text */
export function startMailbox(port, take) {
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    onData(stream, _session, done) {
      const parts = [];
      stream.on('data', (part) => parts.push(part));
      stream.once('end', async () => {
        const { to, subject, text } = await PostalMime.parse(Buffer.concat(parts));
        take({ to: to.map(({ address }) => address), subject, text });
        done();
      });
    },
  });
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () =>
      resolve({
        address: `smtp://127.0.0.1:${server.server.address().port}`,
        close: () => new Promise((closed) => server.close(closed)),
      }),
    );
  });
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const { address } = await startMailbox(PORT, ({ to, subject, text }) =>
    say(`To: ${to.join(', ')}\nSubject: ${subject}\n\n${text}`),
  );
  say(`The mailbox takes messages at ${address}.`);
}
