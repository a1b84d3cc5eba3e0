import { z } from 'zod';
import type { LibraryResource, OfferForm } from '../../shared/libraries.ts';
import { Http, type HttpOptions } from './http.ts';
import { ConnectorError } from './types.ts';

/**
 * A publisher's library by LTI Resource Search 1.0 (1EdTech), from memory: `GET /ims/rs/v1p0/resources` with `filter`,
 * `limit` and `offset`, each resource with its name, its address or its LTI link, what it is of and for whom. What book and
 * chapter a resource belongs to stands in `extensions.isPartOf`, named as schema.org does.
 */

const Names = z.array(z.string()).catch([]);
const Resource = z.object({
  id: z.union([z.string(), z.number()]).transform(String).optional(),
  name: z.string(),
  description: z.string().catch(''),
  url: z.string().nullish(),
  ltiLink: z.looseObject({ url: z.string().nullish() }).nullish(),
  technicalFormat: z.string().nullish(),
  learningResourceType: Names,
  subject: Names,
  author: Names,
  publisher: z.string().catch(''),
  language: Names,
  extensions: z
    .looseObject({
      isPartOf: z
        .object({
          identifier: z.string(),
          name: z.string(),
          bookEdition: z.string().catch(''),
          chapter: z.string().catch(''),
          position: z.number().catch(0),
        })
        .nullish(),
    })
    .nullish()
    .catch(null),
});
type Resource = z.infer<typeof Resource>;

const BASE = 'ims/rs/v1p0';
const DOCUMENTS =
  /^(?:application\/(?:pdf|rtf|msword|vnd\.(?:openxmlformats|oasis)\S*)|text\/(?:plain|csv|rtf))/iu;
const CARTRIDGE = /imscc|cartridge|imsqti|application\/zip/iu;

/** What a resource is, by its format; a page without one is a link. */
function formOf({ ltiLink, url, technicalFormat, learningResourceType }: Resource): OfferForm | null {
  if (ltiLink?.url) return 'lti';
  if (!url) return null;
  const format = technicalFormat ?? '';
  if (CARTRIDGE.test(format)) return 'cartridge';
  // A page of questions is a document; any other page is there to be read.
  const asks = learningResourceType.some((t) => /assess/iu.test(t));
  return DOCUMENTS.test(format) || (asks && /html/iu.test(format)) ? 'document' : 'web';
}

/** One text for a filter: `search~'tides'`, a quote doubled. */
const quoted = (text: string): string => `'${text.replaceAll("'", "''")}'`;

export class LibraryConnector {
  readonly #http: Http;

  constructor(private readonly options: HttpOptions) {
    this.#http = new Http(options);
  }

  /** What it is called. @throws ConnectorError where nothing there speaks LTI Resource Search */
  async about(): Promise<{ name: string }> {
    const schema = z.object({ resources: z.array(Resource) });
    const path = `${BASE}/resources?limit=1`;
    const [first] = (await this.#http.json(path, schema, { what: 'for its resources' })).resources;
    return { name: first?.publisher || new URL(this.options.address).host };
  }

  /** Everything it has whose name, subject or author holds these words; all of it for none. */
  async search(words: string): Promise<LibraryResource[]> {
    const filter =
      words.trim() === '' ? '' : `?filter=${encodeURIComponent(`search~${quoted(words.trim())}`)}`;
    const found = await this.#http.pages(
      `${BASE}/resources${filter}`,
      'resources',
      Resource,
      'for its resources',
    );
    return found.flatMap((r, at) => this.#resource(r, at));
  }

  #resource(r: Resource, at: number): LibraryResource[] {
    const form = formOf(r);
    const address = r.ltiLink?.url ?? r.url;
    if (form === null || !address || !this.#isWeb(address)) return [];
    const part = r.extensions?.isPartOf ?? null;
    return [
      {
        id: r.id ?? `${at}`,
        name: r.name,
        description: r.description,
        form,
        url: new URL(address, this.options.address).href,
        publisher: r.publisher,
        authors: r.author,
        subjects: r.subject,
        languages: r.language,
        book: part && { id: part.identifier, title: part.name, edition: part.bookEdition },
        chapter: part?.chapter ?? '',
        position: part?.position ?? 0,
      },
    ];
  }

  #isWeb(address: string): boolean {
    if (!URL.canParse(address, this.options.address)) return false;
    return /^https?:$/u.test(new URL(address, this.options.address).protocol);
  }

  /**
   * The file of a resource, with the token only where it lies with the library itself.
   * @throws ConnectorError where it cannot be had, or has more bytes than the limit
   */
  async download({ url, name }: LibraryResource, limit: number): Promise<Uint8Array> {
    const own = new URL(url).origin === new URL(this.options.address).origin;
    if (!own)
      throw new ConnectorError(
        `${name} lies on another server (${new URL(url).host}). Download it there, and drop it here.`,
      );
    return (await this.#http.send(url, { what: `for ${name}`, timeoutMs: 60_000, most: limit })).bytes;
  }
}
