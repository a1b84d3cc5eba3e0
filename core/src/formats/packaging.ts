import { encodePath } from '../intake/paths.ts';
import { finding, type Finding } from '../model/finding.ts';
import { Gathered } from '../model/gathered.ts';
import { block, documentPieces, escapeText, tag, type LongDocument } from '../xml/write.ts';

/**
 * The files of a package by path, in the order in which they are written. Each may be made when its turn comes, since
 * all of them may be more than memory holds.
 */
export type PackageEntries = Iterable<readonly [path: string, content: Uint8Array]>;

/** A document that is made when its turn comes. */
export type PendingDocument = readonly [path: string, xml: () => string];

/** A manifest, which names every file there is: its resources are made and written one by one. */
export type Manifest = Pick<LongDocument, 'attrs' | 'head'> & {
  readonly resources: Iterable<WrittenResource>;
};

/** The files of a package: the manifest, documents, and content files; of those that are not there it is noted. */
export function* packageEntries(
  { attrs, head, resources }: Manifest,
  documents: Iterable<PendingDocument>,
  places: ReadonlyMap<string, string>,
  readFile: (path: string) => Uint8Array | null,
  findings: Finding[],
): PackageEntries {
  const encoder = new TextEncoder();
  const children = written(resources);
  const manifest = documentPieces({ name: 'manifest', attrs, head, list: 'resources', children });
  yield ['imsmanifest.xml', encoded(manifest, encoder)];
  for (const [path, xml] of documents) yield [path, encoder.encode(xml())];
  for (const [from, to] of places) {
    const content = readFile(from);
    if (content) yield [to, content];
    else findings.push(finding('file-not-written', 'error', { path: from }, { path: from }));
  }
}

/** So many characters of short pieces are encoded at once. */
const TOGETHER = 2 ** 16;

/** A long text in UTF-8. */
function encoded(pieces: Iterable<string>, encoder: TextEncoder): Uint8Array {
  const bytes = new Gathered();
  let waiting = '';
  for (const piece of pieces) {
    waiting += piece;
    if (waiting.length < TOGETHER) continue;
    bytes.add(encoder.encode(waiting));
    waiting = '';
  }
  bytes.add(encoder.encode(waiting));
  return bytes.whole();
}

/** Paths for documents: safe on every system, stable, never the same twice. */
export function pathMaker(): (folder: string, id: string) => string {
  const used = new Set<string>();
  return (folder, id) => {
    const base = id
      .normalize('NFC')
      .replace(/[^\p{L}\p{N}_.-]/gu, '_')
      .slice(0, 80);
    const at = (n: number): string =>
      `${folder === '' ? '' : `${folder}/`}${base}${n > 1 ? `-${n}` : ''}.xml`;
    let n = 1;
    while (used.has(at(n).toLowerCase())) n += 1;
    used.add(at(n).toLowerCase());
    return at(n);
  };
}

/** Where content files are written: their own paths, unless documents stand there or two would meet. */
export function filePlaces(
  paths: readonly string[],
  folders: readonly string[],
): ReadonlyMap<string, string> {
  const taken = new Set<string>();
  const reserved = (path: string): boolean =>
    path.toLowerCase() === 'imsmanifest.xml' ||
    (path.toLowerCase().endsWith('.xml') &&
      folders.includes(path.slice(0, Math.max(0, path.lastIndexOf('/')))));
  return new Map(
    paths.map((path) => {
      const inside = path.replace(/^.*!\//u, '');
      let place = reserved(inside) ? `files/${inside}` : inside;
      for (let n = 2; taken.has(place.toLowerCase()); n++) place = `${n}/${inside}`;
      taken.add(place.toLowerCase());
      return [path, place];
    }),
  );
}

export interface WrittenResource {
  readonly id: string;
  readonly type: string;
  readonly href: string;
  readonly files: readonly string[];
  readonly dependencies: readonly string[];
  /** Whether the resource itself names its first file (QTI does; cartridge documents do not). */
  readonly named: boolean;
  readonly metadata?: string;
}

function* written(resources: Iterable<WrittenResource>): Generator<string> {
  for (const resource of resources) yield writeResource(resource);
}

const writeResource = (r: WrittenResource): string =>
  block('resource', { identifier: r.id, type: r.type, href: r.named ? encodePath(r.href) : null }, [
    r.metadata ?? '',
    ...[r.href, ...r.files].map((f) => tag('file', { href: encodePath(f) })),
    ...r.dependencies.map((d) => tag('dependency', { identifierref: d })),
  ]);

/** LOM general/title with its prefix. */
export const lomTitle = (prefix: string, title: string): string =>
  block(`${prefix}:lom`, {}, [
    block(`${prefix}:general`, {}, [
      block(`${prefix}:title`, {}, [tag(`${prefix}:string`, {}, escapeText(title))]),
    ]),
  ]);

/** An identifier for a manifest: xsd:ID allows few characters. */
export function manifestIds(): (prefix: string, id: string) => string {
  const used = new Set<string>();
  return (prefix, id) => {
    const base = `${prefix}_${id.replace(/[^A-Za-z0-9_.-]/gu, '_')}`.slice(0, 100);
    let made = base;
    for (let n = 2; used.has(made); n++) made = `${base}_${n}`;
    used.add(made);
    return made;
  };
}
