import type { Server } from 'node:http';
import express, { type Request, type Response } from 'express';
import { BOOK, chapterFiles } from '../demo/book/files.ts';
import { chapterCartridge } from '../demo/book/cartridges.ts';
import type { Chapter } from '../demo/book/question.ts';

/**
 * The library of an invented publisher: one textbook in two editions, by LTI Resource Search 1.0 (1EdTech, from memory). The
 * third edition has its questions as documents, the second as cartridges; both have links.
 */

const PUBLISHER = 'Lantern & Lead Press';
const TOKEN = 'demo-library';
const TYPES: Readonly<Record<string, string>> = {
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  rtf: 'application/rtf',
  txt: 'text/plain',
  csv: 'text/csv',
  pdf: 'application/pdf',
  html: 'text/html',
  imscc: 'application/vnd.ims.imsccv1p3',
};
const EDITIONS = [
  { id: 'coastal-pilotage-3', edition: '3rd edition' },
  { id: 'coastal-pilotage-2', edition: '2nd edition' },
] as const;

interface Listed {
  readonly id: string;
  readonly name: string;
  readonly url?: string;
  readonly ltiLink?: { readonly url: string; readonly title: string };
  readonly technicalFormat?: string;
  readonly [more: string]: unknown;
}

export class PublisherLibrary {
  readonly #files = new Map<string, Uint8Array>();
  readonly #all: Listed[] = [];
  #server: Server | null = null;

  constructor(private readonly port: number) {}

  get address(): string {
    return `http://127.0.0.1:${(this.#server?.address() as { port: number } | null)?.port ?? this.port}`;
  }

  async start(): Promise<this> {
    const documents = await chapterFiles();
    const app = this.#routes();
    await new Promise<void>((done, fail) => {
      this.#server = app.listen(this.port, '127.0.0.1', (error?: Error) => (error ? fail(error) : done()));
    });
    this.#all.push(...this.#listed(documents));
    return this;
  }

  async stop(): Promise<void> {
    this.#server?.closeAllConnections();
    await new Promise((done) => this.#server?.close(done) ?? done(null));
  }

  /** Everything it offers, by addresses of its own. */
  #listed(documents: Awaited<ReturnType<typeof chapterFiles>>): Listed[] {
    const out: Listed[] = [];
    for (const { id, edition } of EDITIONS) {
      const part = { identifier: id, name: 'Coastal pilotage', bookEdition: edition };
      out.push(
        this.#link(`${id}-book`, 'The book to read', `/read/${id}`, { ...part, chapter: '', position: 0 }),
      );
      for (const [at, chapter] of BOOK.entries()) {
        const place = { ...part, chapter: chapter.title, position: chapter.number };
        const number = String(chapter.number).padStart(2, '0');
        const file = id.endsWith('3')
          ? documents[at]!
          : { name: `pilotage-2e-ch${number}.imscc`, bytes: chapterCartridge(chapter) };
        this.#files.set(file.name, file.bytes);
        out.push(this.#file(`${id}-${number}-bank`, chapter, file.name, place));
        out.push(
          this.#link(`${id}-${number}-read`, `Chapter ${chapter.number} to read`, readAt(id, chapter), place),
        );
        out.push({
          ...this.#common(`${id}-${number}-drill`, `Drills of chapter ${chapter.number}`, place),
          learningResourceType: ['Assessment'],
          ltiLink: {
            url: `${this.address}/launch/${id}/${chapter.number}`,
            title: `Drills of chapter ${chapter.number}`,
          },
        });
      }
    }
    return out;
  }

  #common(id: string, name: string, part: object): Listed {
    return {
      id,
      name,
      description: '',
      subject: ['Navigation'],
      author: ['I. Marlow', 'S. Ferrow'],
      publisher: PUBLISHER,
      language: ['en'],
      extensions: { isPartOf: part },
    };
  }

  #file(id: string, chapter: Chapter, file: string, part: object): Listed {
    const ending = file.split('.').at(-1)!;
    return {
      ...this.#common(id, `Test bank, chapter ${chapter.number}`, part),
      url: `${this.address}/files/${file}`,
      technicalFormat: TYPES[ending] ?? 'application/octet-stream',
      learningResourceType: ['Assessment/Item'],
    };
  }

  #link(id: string, name: string, path: string, part: object): Listed {
    return {
      ...this.#common(id, name, part),
      url: `${this.address}${path}`,
      technicalFormat: 'text/html',
      learningResourceType: ['Text'],
    };
  }

  #routes(): express.Express {
    const app = express();
    const page = (response: Response, title: string, text: string): void =>
      void response
        .type('html')
        .send(
          `<!doctype html><html lang="en"><meta charset="utf-8"><title>${title}</title><h1>${title}</h1><p>${text}</p></html>`,
        );
    app.get('/', (_, response) =>
      page(response, PUBLISHER.replace('&', '&amp;'), `A library of one book. Its token is ${TOKEN}.`),
    );
    // The second edition has moved; its last chapter is gone.
    app.get('/read/coastal-pilotage-2/12', (_, response) => void response.status(404).send('Gone.'));
    app.get('/read/coastal-pilotage-2/:chapter', (request, response) =>
      response.redirect(301, `/archive/${request.params['chapter']}`),
    );
    app.get(['/read/:book', '/read/:book/:chapter', '/archive/:chapter'], (request, response) => {
      const chapter = BOOK.find((c) => String(c.number) === request.params['chapter']);
      page(
        response,
        chapter ? `Chapter ${chapter.number}: ${chapter.title}` : 'Coastal pilotage',
        'To be read here.',
      );
    });
    app.all(
      '/launch/:book/:chapter',
      (_, response) => void response.status(400).send('A launch comes from a course.'),
    );
    app.use(['/ims', '/files'], (request, response, next) => {
      if (request.headers.authorization === `Bearer ${TOKEN}`) return next();
      response
        .status(401)
        .json({ imsx_codeMajor: 'failure', imsx_description: 'The token is not known here.' });
    });
    app.get('/files/:name', (request, response) => {
      const bytes = this.#files.get(request.params['name'] as string);
      if (!bytes) return void response.status(404).send('No such file.');
      response.type('application/octet-stream').send(Buffer.from(bytes));
    });
    app.get('/ims/rs/v1p0/resources', (request, response) => this.#resources(request, response));
    app.get('/ims/rs/v1p0/resources/:id', (request, response) => {
      const found = this.#all.find((r) => r.id === request.params['id']);
      if (found) response.json({ resource: found });
      else response.status(404).json({ imsx_codeMajor: 'failure', imsx_description: 'No such resource.' });
    });
    return app;
  }

  #resources(request: Request, response: Response): void {
    const asked = (name: string): string => String(request.query[name] ?? '');
    const words = /^search~'((?:[^']|'')*)'$/u
      .exec(asked('filter'))?.[1]
      ?.replaceAll("''", "'")
      .toLowerCase();
    if (asked('filter') !== '' && words === undefined)
      return void response
        .status(400)
        .json({ imsx_codeMajor: 'failure', imsx_description: 'This filter is not understood here.' });
    const found = this.#all.filter((r) => !words || JSON.stringify(r).toLowerCase().includes(words));
    const [offset, limit] = [Number(asked('offset') || 0), Math.min(100, Number(asked('limit') || 100))];
    response.setHeader('X-Total-Count', String(found.length));
    response.json({ resources: found.slice(offset, offset + limit) });
  }
}

const readAt = (id: string, chapter: Chapter): string => `/read/${id}/${chapter.number}`;
