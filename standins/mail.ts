import { createServer, type Server } from 'node:http';
import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';

interface Caught {
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  readonly at: string;
}

const KEPT = 200;

/** Catches every mail it is sent and shows it on a page; nothing leaves the machine. */
export class MailCatcher {
  readonly caught: Caught[] = [];
  readonly #smtp: SMTPServer;
  readonly #page: Server;

  constructor(
    private readonly smtpPort: number,
    private readonly pagePort: number,
  ) {
    this.#smtp = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS', 'AUTH'],
      onData: (stream, _, done) => {
        simpleParser(stream).then((mail) => {
          const to = Array.isArray(mail.to) ? mail.to.map((t) => t.text).join(', ') : (mail.to?.text ?? '');
          this.caught.unshift({
            to,
            subject: mail.subject ?? '',
            text: mail.text ?? '',
            at: new Date().toISOString(),
          });
          this.caught.length = Math.min(this.caught.length, KEPT);
          done();
        }, done);
      },
    });
    this.#page = createServer((request, response) => {
      if (request.url === '/mails.json')
        return void response.setHeader('Content-Type', 'application/json').end(JSON.stringify(this.caught));
      const escape = (text: string): string => text.replace(/&/gu, '&amp;').replace(/</gu, '&lt;');
      const mails = this.caught
        .map(
          (m) =>
            `<h2>${escape(m.subject)}</h2><p>to ${escape(m.to)}, ${m.at}</p><pre>${escape(m.text)}</pre>`,
        )
        .join('<hr>');
      response
        .setHeader('Content-Type', 'text/html; charset=utf-8')
        .end(
          `<!doctype html><html lang="en"><meta charset="utf-8"><title>Mail</title><body style="font:15px monospace;max-width:60em;margin:2em auto"><h1>Mail caught</h1>${mails || '<p>None yet.</p>'}</body></html>`,
        );
    });
  }

  async start(): Promise<this> {
    await new Promise<void>((done) => this.#smtp.listen(this.smtpPort, '127.0.0.1', done));
    await new Promise<void>((done) => this.#page.listen(this.pagePort, '127.0.0.1', done));
    return this;
  }

  async stop(): Promise<void> {
    await new Promise<void>((done) => this.#smtp.close(done));
    this.#page.closeAllConnections();
    await new Promise((done) => this.#page.close(done));
  }
}
