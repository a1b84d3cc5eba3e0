import type { Fitted2 } from '../../fit/qti2.ts';
import { quizItems } from '../../model/quizzes.ts';
import type { Finding } from '../../model/finding.ts';
import type { Holding, Item } from '../../model/holding.ts';
import { encodePath } from '../../intake/paths.ts';
import { block, escapeText, tag, xmlDocument } from '../../xml/write.ts';
import {
  filePlaces,
  packageEntries,
  pathMaker,
  type PackageEntries,
  type PendingDocument,
} from '../packaging.ts';
import { markupFor } from './markup.ts';
import { DIALECTS, LOM_NAMESPACE, type Dialect, type QtiVersion } from './names.ts';
import { writeItem, writeStimulus } from './writeItem.ts';
import { writeBank, writeTest } from './writeTest.ts';

interface Resource {
  readonly id: string;
  readonly type: string;
  readonly href: string;
  readonly files: readonly string[];
  readonly dependencies: readonly string[];
  readonly category?: string | null;
}

/**
 * A QTI 2.1, 2.2 or 3.0 package of a holding that has been fitted to it (fit/qti2): one document an item, a
 * test a quiz, a section a bank, the files, and the manifest. The same holding gives the same bytes.
 */
export function writeQti2(
  { holding, items, itemId }: Fitted2,
  version: QtiVersion,
  readFile: (path: string) => Uint8Array | null,
): { entries: PackageEntries; findings: Finding[] } {
  const dialect = DIALECTS[version];
  const markup = markupFor(dialect);
  const findings: Finding[] = [];
  const resources: Resource[] = [];
  const names = pathMaker();
  const itemPaths = new Map(
    holding.items.map((item) => {
      const id = itemId(item.id);
      return [id, names('items', id)];
    }),
  );
  const files = filePlaces(
    holding.files.map((f) => f.path),
    ['items', 'tests', 'banks', 'stimuli'],
  );
  const fileAt = (path: string): string | null => files.get(path) ?? null;
  const itemPath = (id: string): string | null => itemPaths.get(id) ?? null;

  const documents: PendingDocument[] = [];
  for (const quiz of holding.quizzes) {
    const path = names('tests', quiz.id);
    documents.push([path, () => writeTest(quiz, { markup, path, fileAt }, itemPath)]);
    const inside = quizItems(quiz);
    resources.push({
      id: `test-${quiz.id}`,
      type: `imsqti_test_xml${dialect.resources}`,
      href: path,
      files: [],
      dependencies: itemResources(inside, itemPaths),
    });
  }
  for (const bank of holding.banks) {
    const path = names('banks', bank.id);
    documents.push([path, () => writeBank(bank, markup, path, itemPath)]);
    resources.push({
      id: `bank-${bank.id}`,
      type: `imsqti_section_xml${dialect.resources}`,
      href: path,
      files: [],
      dependencies: itemResources(bank.items, itemPaths),
    });
  }
  const used = new Set<string>();
  const stimuli = new Map<string, { id: string; path: string }>();
  for (const item of version === '2.1' ? [] : holding.items) {
    if (item.stimuli.length === 0) continue;
    for (const stimulus of items.fitted(item).stimuli) {
      if (stimuli.has(stimulus.path)) continue;
      const path = names('stimuli', stimulus.id);
      const id = `stimulus-${stimuli.size + 1}`;
      stimuli.set(stimulus.path, { id, path });
      documents.push([path, () => writeStimulus(stimulus, { markup, path, fileAt })]);
      resources.push({
        id,
        type: `imsqti_stimulus_xml${dialect.resources}`,
        href: path,
        files: [],
        dependencies: [],
      });
    }
  }
  for (const item of holding.items) {
    const id = itemId(item.id);
    const path = itemPaths.get(id)!;
    documents.push([
      path,
      () => writeItem(items.fitted(item), { markup, path, fileAt }, (at) => stimuli.get(at)?.path ?? null),
    ]);
    const own = item.files.flatMap((f) => (files.has(f.path) ? [files.get(f.path)!] : []));
    own.forEach((f) => used.add(f));
    resources.push({
      id: `item-${id}`,
      type: `imsqti_item_xml${dialect.resources}`,
      href: path,
      files: own,
      dependencies: version === '2.1' ? [] : item.stimuli.map((s) => stimuli.get(s.path)!.id),
      category: item.category,
    });
  }
  [...files.values()]
    .filter((f) => !used.has(f))
    .forEach((path, at) => {
      resources.push({ id: `file-${at + 1}`, type: 'webcontent', href: path, files: [], dependencies: [] });
    });
  const manifest = (): string => writeManifest(holding, resources, dialect);
  return { entries: packageEntries(manifest, documents, files, readFile, findings), findings };
}

const itemResources = (ids: readonly string[], paths: ReadonlyMap<string, string>): string[] =>
  [...new Set(ids)].filter((id) => paths.has(id)).map((id) => `item-${id}`);

function writeManifest(holding: Holding, resources: readonly Resource[], dialect: Dialect): string {
  return xmlDocument(
    block(
      'manifest',
      { xmlns: dialect.package.namespace, 'xmlns:imsmd': LOM_NAMESPACE, identifier: 'manifest' },
      [
        block('metadata', {}, [
          tag('schema', {}, dialect.package.schema),
          tag('schemaversion', {}, dialect.package.schemaVersion),
          holding.title
            ? block('imsmd:lom', {}, [
                block('imsmd:general', {}, [
                  block('imsmd:title', {}, [tag('imsmd:string', {}, escapeText(holding.title))]),
                ]),
              ])
            : '',
        ]),
        tag('organizations'),
        block('resources', {}, resources.map(writeResource)),
      ],
    ),
  );
}

function writeResource(resource: Resource): string {
  return block(
    'resource',
    { identifier: resource.id, type: resource.type, href: encodePath(resource.href) },
    [
      resource.category ? block('metadata', {}, [lomCategory(resource.category)]) : '',
      ...[resource.href, ...resource.files].map((f) => tag('file', { href: encodePath(f) })),
      ...resource.dependencies.map((d) => tag('dependency', { identifierref: d })),
    ],
  );
}

const lomCategory = (category: NonNullable<Item['category']>): string =>
  block('imsmd:lom', {}, [
    block('imsmd:classification', {}, [
      block('imsmd:taxonPath', {}, [
        block('imsmd:taxon', {}, [block('imsmd:entry', {}, [tag('imsmd:string', {}, escapeText(category))])]),
      ]),
    ]),
  ]);
