import type { DocumentContext, Draft, DraftItem } from '../formats/draft.ts';
import { detailOf, emptyDraft } from '../formats/draft.ts';
import { decodeBase64 } from '../model/base64.ts';
import type { OrganizationItem } from '../intake/manifest.ts';
import type { Platform } from '../intake/platform.ts';
import { finding, Refusal, type Finding } from '../model/finding.ts';
import { ownText } from '../model/ownText.ts';
import type { DocumentReading, FileRef, Format, Item, OutlineNode } from '../model/holding.ts';
import type { XmlDocument } from '../xml/tree.ts';
import { fileFinder } from './files.ts';
import { formatOf } from './format.ts';
import { openPackage, type OpenDocument, type OpenPackage, type ReadLimits } from './open.ts';
import type { ItemHolder } from './itemHolder.ts';
import type { ParsedDocument } from './parseFile.ts';

/** What was read, before references are resolved and points settled. */
export interface Read {
  readonly draft: Draft;
  readonly outline: readonly OutlineNode[];
  readonly files: readonly FileRef[];
  readonly format: Format;
  /** Empty where the source has none. */
  readonly title: string;
  readonly documents?: readonly DocumentReading[];
}

/** Takes an item that was just read. @returns what stands for it from now on */
export type TakeItem = (item: Item) => Item;
type EmbedFile = (prefix: string, base64: string, type: string) => string | null;

/** So many items are worth telling of before the others are read. */
const FIRST_ITEMS = 40;

/** Reads every document of a package, and of the packages inside it. */
export async function readPackage(
  name: string,
  bytes: Uint8Array,
  platform: Platform,
  limits: ReadLimits,
  claim: DocumentContext['claim'],
  add: (found: Finding) => void,
  take: TakeItem,
): Promise<Read> {
  const opened = await openPackage(name, bytes, platform, limits, add);
  const embedded = embeddedFiles(platform);
  const draft = emptyDraft();
  const outline: OutlineNode[] = [];
  const files: FileRef[] = [];
  for (const one of [opened, ...opened.inner]) {
    const read = await readDocuments(one, { claim, add, embed: embedded.add }, limits, take);
    merge(draft, read.draft);
    outline.push(...readOutline(one, read.draft));
    files.push(...contentFiles(one, read.unread));
  }
  files.push(...embedded.files);
  return { draft, outline, files, format: formatOf(opened), title: opened.manifest?.title ?? '' };
}

async function readDocuments(
  opened: OpenPackage,
  { claim, add, embed }: Pick<DocumentContext, 'claim' | 'add'> & { readonly embed: EmbedFile },
  limits: ReadLimits,
  take: TakeItem,
): Promise<{ draft: Draft; unread: ReadonlySet<string> }> {
  const draft = emptyDraft();
  let told = false;
  const unread = new Set<string>();
  const fileOf = fileFinder(opened.files.keys());
  const cartridge = formatOf(opened).standard === 'common-cartridge';
  const siblings = siblingFinder(opened);
  const titles = organizationTitles(opened.manifest?.organization ?? []);
  for (const [at, document] of opened.documents.entries()) {
    if (at % 50 === 0) limits.onProgress?.(at, opened.documents.length);
    const parsed = document.parse();
    if (!parsed) {
      unread.add(document.path);
      continue;
    }
    const resource = opened.resources.get(document.path);
    const context = documentContext(document, parsed, opened, {
      claim,
      add,
      file: fileOf(document.path),
      fileFrom: fileOf,
      sibling: siblings,
      embed: (base64, type) => embed(opened.prefix, base64, type),
      resourceTitle: resource?.title || titles.get(resource?.id ?? '') || '',
      insideCartridge: cartridge,
    });
    const { format } = document.detected;
    const wrong = resource
      ? format.contradiction(resource.type.toLowerCase(), document.detected, parsed.document.root)
      : null;
    if (wrong)
      add(
        finding(
          'declared-type-wrong',
          'warning',
          { path: context.path, node: resource!.id },
          { declared: resource!.type, found: wrong },
        ),
      );
    const facts = { id: resource?.id ?? '', category: resource?.category ?? null };
    let read: Draft;
    try {
      read = format.read(document.detected, context, facts);
    } catch (error) {
      if (error instanceof Refusal) throw error;
      unread.add(document.path);
      add(finding('document-unreadable', 'error', { path: context.path }, { detail: detailOf(error) }));
      continue;
    }
    if (!told && draft.items.length + read.items.length >= FIRST_ITEMS) {
      told = true;
      await limits.onFirst?.([...draft.items, ...read.items].map((i) => i.item));
    }
    merge(draft, await taken(read, limits.holder, take));
  }
  return { draft, unread };
}

const EMBEDDED_TYPES: Readonly<Record<string, string>> = {
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/gif': 'gif',
  'image/webp': 'webp',
  // Data that students work with; nothing a browser would run.
  'text/csv': 'csv',
  'text/tab-separated-values': 'tsv',
  'text/plain': 'txt',
  'application/json': 'json',
  'application/pdf': 'pdf',
  'application/zip': 'zip',
  'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet': 'xlsx',
  'application/vnd.oasis.opendocument.spreadsheet': 'ods',
  'application/octet-stream': 'dat',
};

/** Pictures and data that stand inside documents become files, the same bytes once. */
function embeddedFiles(platform: Platform) {
  const byPath = new Map<string, FileRef>();
  return {
    get files(): FileRef[] {
      return [...byPath.values()];
    },
    add(prefix: string, base64: string, type: string): string | null {
      const ending = Object.hasOwn(EMBEDDED_TYPES, type) ? EMBEDDED_TYPES[type] : undefined;
      const bytes = ending === undefined ? null : decodeBase64(base64);
      if (!bytes) return null;
      const sha256 = platform.sha256(bytes);
      const path = `${prefix}embedded/${sha256.slice(0, 12)}.${ending}`;
      byPath.set(path, { path, bytes: bytes.length, sha256, embedded: base64 });
      return path;
    },
  };
}

/** Documents that others look into (stimuli, private templates, section files), each parsed once. */
function siblingFinder(opened: OpenPackage): DocumentContext['sibling'] {
  const parsed = new Map<string, XmlDocument | null>();
  const documents = new Map(opened.documents.map((d) => [opened.prefix + d.path, d]));
  return (path) => {
    if (!parsed.has(path)) parsed.set(path, documents.get(path)?.parse(true)?.document ?? null);
    return parsed.get(path)!;
  };
}

/**
 * Takes the items of a document; where they are held, all that was read is in memory of its own, so that the document
 * can be let go.
 */
async function taken(read: Draft, holder: ItemHolder | undefined, take: TakeItem): Promise<Draft> {
  const { items, ...rest } = read;
  const kept: DraftItem[] = [];
  for (const { item, path, rawId } of items) {
    kept.push({ item: take(item), path, rawId: holder ? ownText(rawId) : rawId });
    const wait = holder?.room();
    if (wait) await wait;
  }
  return { ...(holder ? structuredClone(rest) : rest), items: kept };
}

function merge(into: Draft, read: Draft): void {
  for (const item of read.items) into.items.push(item);
  into.quizzes.push(...read.quizzes);
  into.banks.push(...read.banks);
  into.links.push(...read.links);
  into.rubrics.push(...read.rubrics);
}

function documentContext(
  document: OpenDocument,
  parsed: ParsedDocument,
  opened: OpenPackage,
  over: Pick<
    DocumentContext,
    'claim' | 'add' | 'file' | 'fileFrom' | 'sibling' | 'embed' | 'resourceTitle' | 'insideCartridge'
  >,
): DocumentContext {
  const { prefix } = opened;
  const prefixed =
    (find: DocumentContext['file']): DocumentContext['file'] =>
    (address, use) => {
      const found = find(address, use);
      if (found.path === null || prefix === '') return found;
      return { ...found, address: prefix + found.path, path: prefix + found.path };
    };
  const file = prefixed(over.file);
  const fileFrom: DocumentContext['fileFrom'] = (path) => prefixed(over.fileFrom(path.slice(prefix.length)));
  return {
    ...over,
    file,
    fileFrom,
    path: prefix + document.path,
    document: parsed.document,
    place: parsed.place,
  };
}

/** Files that are content: not the manifest, not the documents read into the tree. */
function contentFiles(opened: OpenPackage, unread: ReadonlySet<string>): FileRef[] {
  const read = new Set(opened.documents.map((d) => d.path).filter((path) => !unread.has(path)));
  return [...opened.files]
    .filter(([path]) => !read.has(path) && path.toLowerCase() !== 'imsmanifest.xml')
    .map(([path, file]) => ({ path: opened.prefix + path, bytes: file.bytes, sha256: file.sha256 }));
}

function organizationTitles(items: readonly OrganizationItem[]): Map<string, string> {
  const titles = new Map<string, string>();
  const visit = (list: readonly OrganizationItem[]): void => {
    for (const item of list) {
      if (item.resource && item.title) titles.set(item.resource, item.title);
      visit(item.children);
    }
  };
  visit(items);
  return titles;
}

/** The folder outline, with what each entry refers to resolved to a quiz, bank or link id, or a file. */
function readOutline(opened: OpenPackage, draft: Draft): OutlineNode[] {
  const targets = new Map<string, string>();
  // The first of each path: a quiz before a bank, and that before a link.
  const owners = new Map(
    [...draft.quizzes, ...draft.banks, ...draft.links].reverse().map((o) => [o.path, o.id] as const),
  );
  for (const [path, resource] of opened.resources) {
    const full = opened.prefix + path;
    targets.set(resource.id, owners.get(full) ?? full);
  }
  const build = (item: OrganizationItem): OutlineNode => ({
    id: item.id,
    title: item.title,
    refers: item.resource ? (targets.get(item.resource) ?? null) : null,
    children: item.children.map(build),
  });
  return (opened.manifest?.organization ?? []).flatMap((item) => {
    const node = build(item);
    // A cartridge has one untitled root item that holds everything.
    return node.title === '' && node.refers === null ? node.children : [node];
  });
}
