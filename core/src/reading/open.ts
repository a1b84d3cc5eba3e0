import {
  allowanceFor,
  hasZipEnd,
  openArchive,
  looksLikeZip,
  singleFile,
  DEFAULT_LIMITS,
  type Archive,
  type ArchiveLimits,
} from '../intake/archive.ts';
import type { DetectedDocument } from '../formats/table.ts';
import { readManifest, type Manifest, type Resource } from '../intake/manifest.ts';
import type { AskedOf } from '../checks/check.ts';
import type { Platform } from '../intake/platform.ts';
import { finding, refuse, Refusal, type Finding } from '../model/finding.ts';
import { NOTHING_SAID_OF, type Confirmed, type Said } from '../layout/confirmed.ts';
import type { KnownLayout } from '../layout/known.ts';
import type { Layout } from '../layout/layout.ts';
import type { ReadingContext } from '../formats/draft.ts';
import type { TableLayout } from '../formats/table/roles.ts';
import type { Item } from '../model/holding.ts';
import type { ReadingRule } from '../model/readingRule.ts';
import { Contents, startsLikeXml } from './contents.ts';
import type { ItemHolder } from './itemHolder.ts';
import { parseFile, type ParsedDocument } from './parseFile.ts';

export interface ReadLimits extends Partial<ArchiveLimits> {
  readonly maxXmlDepth?: number;
  /** Readings of private fields that have been confirmed. */
  readonly rules?: readonly ReadingRule[];
  /** What the columns of tables say, where somebody has confirmed it. */
  readonly layouts?: readonly TableLayout[];
  /** How documents of questions are laid out, where somebody has confirmed it. */
  readonly layout?: Layout | null;
  /** The same by what documents look like. */
  readonly known?: readonly KnownLayout[];
  /** What somebody has said of this source's documents. */
  readonly said?: Said;
  /** Told how each document of questions was understood. */
  readonly onRecognised?: ReadingContext['onRecognised'];
  /** Told how far reading is: documents parsed, of how many files. */
  readonly onProgress?: (done: number, total: number) => void;
  /** Told the first items of a package, before anything has been found out of them; what it does is waited for. */
  readonly onFirst?: (items: readonly Item[]) => Promise<void>;
  /** Told each item in order once it is whole; a promise is waited for before the next. */
  readonly onItem?: (item: Item, told: ToldOfItem) => Promise<void> | undefined;
  /** Keeps items while they wait for others, where all of them may be more than memory holds. */
  readonly holder?: ItemHolder;
}

/** What is told of an item that is whole. */
export interface ToldOfItem {
  /** What was found out of it while it was at hand. */
  readonly asked: AskedOf;
  /** How many items there are. */
  readonly of: number;
  /** Whether it is otherwise than it was held. */
  readonly altered: boolean;
}

/** What these limits say of documents of questions. */
export const confirmedBy = ({
  layout = null,
  known = [],
  said = NOTHING_SAID_OF,
}: ReadLimits): Confirmed => ({
  layout,
  known,
  said,
});

/**
 * One XML file of a package that is ours to read; parsed when it is asked for, so that only one tree stands
 * in memory.
 */
export interface OpenDocument {
  readonly path: string;
  readonly detected: DetectedDocument;
  /** Null, with a finding, where it cannot be parsed; `silent` where another document only looks into it. */
  readonly parse: (silent?: boolean) => ParsedDocument | null;
}

/** A package opened: its files, its manifest, and its XML documents in manifest order. */
export interface OpenPackage {
  /** "" for the outermost, "outer.zip!/" for a package inside it. */
  readonly prefix: string;
  readonly files: ReadonlyMap<string, { bytes: number; sha256: string }>;
  readonly read: (path: string) => Uint8Array | null;
  readonly manifest: Manifest | null;
  readonly resources: ReadonlyMap<string, Resource>;
  readonly documents: readonly OpenDocument[];
  readonly inner: readonly OpenPackage[];
  readonly fromZip: boolean;
}

const MAX_NESTING = 1;
const MANIFEST = 'imsmanifest.xml';

/** Opens an archive or a bare XML file and parses every XML document that is ours to read. */
export async function openPackage(
  name: string,
  bytes: Uint8Array,
  platform: Platform,
  limits: ReadLimits,
  add: (found: Finding) => void,
  depth = 0,
  prefix = '',
): Promise<OpenPackage> {
  const place = (found: Finding): void =>
    add({ ...found, where: { ...found.where, path: prefix + (found.where.path ?? '') } });
  const fromZip = looksLikeZip(bytes) || (!startsLikeXml(bytes) && hasZipEnd(bytes));
  const allowed = { ...DEFAULT_LIMITS, ...limits };
  const allowance = allowed.allowance ?? allowanceFor(bytes.length, allowed);
  const contents = new Contents();
  const archive = fromZip
    ? await openArchive(name, bytes, platform, { ...allowed, allowance }, contents.look)
    : singleFile(name, bytes, platform);
  archive.findings.forEach(depth === 0 ? add : place);
  const { files, read, take } = unwrap(archive, place);
  const named = foldedNames(files);
  const manifestPath = named(MANIFEST);
  const manifestDocument = manifestPath
    ? parseFile(manifestPath, read(manifestPath), limits.maxXmlDepth, place)
    : null;
  const manifest = manifestDocument
    ? readManifest(manifestDocument.document, (offset) => manifestDocument.place(offset).line)
    : null;
  const { resources, order } = matchResources(manifest, named, manifestPath ?? MANIFEST, place);

  const rest = [...files.keys()].filter((p) => !order.has(p) && p !== manifestPath);
  const documents: OpenDocument[] = [];
  const inner: OpenPackage[] = [];
  const queue = [...order, ...rest];
  for (const path of queue) {
    const is = contents.of(files.get(path)!.sha256, () => read(path));
    if (is === 'archive') {
      const content = read(path)!;
      const opened = await openInner(path, content, platform, { ...limits, allowance }, add, depth, prefix);
      if (opened) inner.push(opened);
      continue;
    }
    if (!is || path === manifestPath) continue;
    documents.push({
      path,
      detected: is,
      parse: (silent) =>
        silent
          ? parseFile(path, read(path), limits.maxXmlDepth, () => undefined)
          : parseFile(path, take(path), limits.maxXmlDepth, place),
    });
  }
  if (fromZip && !manifest && documents.length > 0)
    place(finding('manifest-missing', 'note', { path: name }));
  if (manifest) for (const path of rest) place(finding('file-unlisted', 'note', { path }));
  return { prefix, files, read, manifest, resources, documents, inner, fromZip };
}

async function openInner(
  path: string,
  content: Uint8Array,
  platform: Platform,
  limits: ReadLimits,
  add: (found: Finding) => void,
  depth: number,
  prefix: string,
): Promise<OpenPackage | null> {
  const most = allowanceFor(content.length, DEFAULT_LIMITS).entries;
  const listing = await platform.listZip(content, most).catch(() => null);
  const holdsPackage = listing?.entries.some((e) => /(?:^|[\\/])imsmanifest\.xml$/iu.test(e.name)) ?? false;
  if (!holdsPackage) return null;
  const where = { path: prefix + path };
  if (depth >= MAX_NESTING) {
    add(finding('archive-nested-too-deep', 'error', where, { limit: MAX_NESTING }));
    return null;
  }
  add(finding('nested-package', 'note', where));
  try {
    return await openPackage(path, content, platform, limits, add, depth + 1, `${prefix}${path}!/`);
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    add({ ...error.finding, where: { ...error.finding.where, ...where } });
    return null;
  }
}

/** A folder around everything is taken off the paths. */
function unwrap(
  archive: Archive,
  add: (found: Finding) => void,
): { files: Map<string, { bytes: number; sha256: string }> } & Pick<Archive, 'read' | 'take'> {
  const folder = wrapperOf([...archive.files.keys()]);
  if (folder === null) return { files: new Map(archive.files), read: archive.read, take: archive.take };
  add(finding('wrapper-folder', 'note', { path: `${folder}/` }, { folder }));
  const cut = folder.length + 1;
  return {
    files: new Map([...archive.files].map(([path, file]) => [path.slice(cut), file])),
    read: (path) => archive.read(`${folder}/${path}`),
    take: (path) => archive.take(`${folder}/${path}`),
  };
}

/** The folder around everything; null where there is none, and without a manifest in it: that is just where the files are. */
export function wrapperOf(paths: readonly string[]): string | null {
  const folder = paths[0]?.split('/')[0] ?? '';
  const inside = `${folder}/${MANIFEST}`.toLowerCase();
  return folder !== '' &&
    paths.every((p) => p.startsWith(`${folder}/`)) &&
    paths.some((p) => p.toLowerCase() === inside)
    ? folder
    : null;
}

/** Finds a file by its name, else by its letters whatever their case; the first of several. */
function foldedNames(files: ReadonlyMap<string, unknown>): (wanted: string) => string | null {
  const folded = new Map([...files.keys()].reverse().map((path) => [path.toLowerCase(), path]));
  return (wanted) => (files.has(wanted) ? wanted : (folded.get(wanted.toLowerCase()) ?? null));
}

/** Matches what the manifest lists with what is there. `order` is the files in the manifest's order. */
function matchResources(
  manifest: Manifest | null,
  named: (wanted: string) => string | null,
  manifestPath: string,
  add: (found: Finding) => void,
): { resources: Map<string, Resource>; order: Set<string> } {
  const resources = new Map<string, Resource>();
  const order = new Set<string>();
  const ids = new Set((manifest?.resources ?? []).map((r) => r.id));
  for (const resource of manifest?.resources ?? []) {
    const found: string[] = [];
    for (const listed of resource.files) {
      const path = named(listed);
      const where = { path: manifestPath, line: resource.line, node: resource.id || null };
      if (path === null) {
        add(finding('file-missing', 'error', where, { path: listed }));
        continue;
      }
      if (path !== listed) add(finding('file-name-differs', 'note', where, { listed, found: path }));
      found.push(path);
      order.add(path);
    }
    for (const dependency of resource.dependencies)
      if (!ids.has(dependency))
        add(
          finding(
            'dependency-missing',
            'warning',
            { path: manifestPath, line: resource.line, node: resource.id || null },
            { resource: dependency },
          ),
        );
    const [first] = found;
    if (first && !resources.has(first)) resources.set(first, { ...resource, files: found });
  }
  return { resources, order };
}

/** Refuses a file with nothing in it. */
export function refuseEmpty(name: string, bytes: Uint8Array): void {
  if (bytes.length === 0) refuse('file-empty', { path: name });
}
