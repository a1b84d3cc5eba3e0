import type { DocumentContext, Draft } from '../formats/draft.ts';
import { emptyDraft } from '../formats/draft.ts';
import { checkItem, checkWhole } from '../checks/index.ts';
import type { Platform } from '../intake/platform.ts';
import { decodeBase64 } from '../intake/base64.ts';
import { fileStem } from '../intake/paths.ts';
import { finding, type Finding } from '../model/finding.ts';
import type { FileRef, Holding, OutlineNode } from '../model/holding.ts';
import { holding } from '../model/make.ts';
import type { OrganizationItem } from '../intake/manifest.ts';
import type { XmlDocument } from '../xml/tree.ts';
import { assemble } from './assemble.ts';
import { fileFinder } from './files.ts';
import { formatOf, otherFormat } from './format.ts';
import { idRegistry } from './ids.ts';
import {
  openPackage,
  refuseEmpty,
  type OpenDocument,
  type OpenPackage,
  type ParsedDocument,
  type ReadLimits,
} from './open.ts';
import { readRubrics } from './readRubrics.ts';
import { applyRules } from './applyRules.ts';
import { settleDraws, settlePoints } from './settle.ts';

/**
 * Reads any file into the canonical tree: open, detect, read, resolve, settle points, check.
 * @param name the file's name, for messages and as a last resort for titles
 * @throws Refusal when the file cannot be opened or trusted at all; all other trouble is in `findings`
 */
export async function readHolding(
  name: string,
  bytes: Uint8Array,
  platform: Platform,
  limits: ReadLimits = {},
): Promise<Holding> {
  refuseEmpty(name, bytes);
  const findings: Finding[] = [];
  const add = (found: Finding): void => void findings.push(found);
  const source = { name, bytes: bytes.length, sha256: platform.sha256(bytes) };
  const other = await otherFormat(bytes, platform);
  if (other?.standard === 'case' || other?.standard === 'table')
    return readRubrics(source, other, bytes, platform, limits.layouts);
  if (other) {
    add(
      finding(
        other.standard === 'unknown' ? 'format-unknown' : 'format-not-read-yet',
        other.standard === 'unknown' ? 'error' : 'warning',
        { path: name },
        { container: other.container },
      ),
    );
    return holding({ source, format: other, title: fileStem(name), findings });
  }
  const opened = await openPackage(name, bytes, platform, limits, add);
  const packages = [opened, ...opened.inner];
  const claim = idRegistry((kind, id, given) => {
    if (kind !== 'section') add(finding('identifier-repeated', 'note', { node: given }, { id, kind }));
  });
  const embedded = embeddedFiles(platform);
  const draft = emptyDraft();
  const outline: OutlineNode[] = [];
  const files: FileRef[] = [];
  for (const one of packages) {
    const read = readDocuments(one, claim, add, limits, embedded.add);
    merge(draft, read.draft);
    outline.push(...readOutline(one, read.draft));
    files.push(...contentFiles(one, read.unread));
  }
  const assembled = assemble(draft, add);
  const paths = new Set([...files, ...embedded.files].map((f) => f.path));
  const checked: Finding[] = [];
  const ruled = applyRules(assembled.items, limits.rules ?? [], add);
  const items = settlePoints(ruled, assembled.quizzes, add, (item) =>
    checked.push(...checkItem(item, paths)),
  );
  const quizzes = settleDraws(assembled.quizzes, items);
  const format = formatOf(opened);
  if (format.standard === 'unknown')
    add(finding('format-unknown', 'error', { path: name }, { container: format.container }));
  const read: Holding = {
    source,
    format,
    title: opened.manifest?.title || quizzes[0]?.title || fileStem(name),
    quizzes,
    banks: assembled.banks,
    items,
    rubrics: [],
    links: draft.links.map(({ path: _path, ...link }) => link),
    files: [...files, ...embedded.files],
    outline,
    findings,
  };
  return { ...read, findings: [...findings, ...checked, ...checkWhole(read)] };
}

/** Reads content files of a package again by the paths a holding gives them; null for what is not there. */
export async function fileReader(
  name: string,
  bytes: Uint8Array,
  platform: Platform,
  limits: ReadLimits = {},
): Promise<(path: string) => Uint8Array | null> {
  const opened = await openPackage(name, bytes, platform, limits, () => undefined);
  return (path) => {
    const inner = opened.inner.find((p) => path.startsWith(p.prefix));
    return inner ? inner.read(path.slice(inner.prefix.length)) : opened.read(path);
  };
}

function readDocuments(
  opened: OpenPackage,
  claim: DocumentContext['claim'],
  add: (found: Finding) => void,
  limits: ReadLimits,
  embed: (prefix: string, base64: string, type: string) => string | null,
): { draft: Draft; unread: ReadonlySet<string> } {
  const draft = emptyDraft();
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
    merge(draft, format.read(document.detected, context, facts));
  }
  return { draft, unread };
}

const EMBEDDED_TYPES: Readonly<Record<string, string>> = {
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/gif': 'gif',
  'image/webp': 'webp',
};

/** Pictures that stand inside documents become files, the same picture once. */
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
  return (path) => {
    if (!parsed.has(path)) {
      const found = opened.documents.find((d) => opened.prefix + d.path === path);
      parsed.set(path, found?.parse(true)?.document ?? null);
    }
    return parsed.get(path)!;
  };
}

function merge(into: Draft, read: Draft): void {
  for (const item of read.items) into.items.push(item);
  into.quizzes.push(...read.quizzes);
  into.banks.push(...read.banks);
  into.links.push(...read.links);
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
  for (const [path, resource] of opened.resources) {
    const full = opened.prefix + path;
    const owner =
      draft.quizzes.find((q) => q.path === full) ??
      draft.banks.find((b) => b.path === full) ??
      draft.links.find((l) => l.path === full);
    targets.set(resource.id, owner?.id ?? full);
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
