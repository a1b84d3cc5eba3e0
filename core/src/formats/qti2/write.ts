import type { Fitted2 } from '../../fit/qti2.ts';
import { quizItems } from '../../model/quizzes.ts';
import type { Finding } from '../../model/finding.ts';
import type { Item, Stimulus } from '../../model/holding.ts';
import { block, escapeText, tag } from '../../xml/write.ts';
import {
  filePlaces,
  lomTitle,
  packageEntries,
  pathMaker,
  type Manifest,
  type PackageEntries,
  type PendingDocument,
  type WrittenResource,
} from '../packaging.ts';
import { markupFor } from './markup.ts';
import { DIALECTS, LOM_NAMESPACE, type QtiVersion } from './names.ts';
import { writeItem, writeStimulus } from './writeItem.ts';
import { writeBank, writeTest } from './writeTest.ts';

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
  const tests = holding.quizzes.map((quiz) => ({ quiz, path: names('tests', quiz.id) }));
  const banks = holding.banks.map((bank) => ({ bank, path: names('banks', bank.id) }));
  const stimuli = new Map<string, { id: string; path: string; stimulus: Stimulus }>();
  for (const item of version === '2.1' ? [] : holding.items) {
    if (item.stimuli.length === 0) continue;
    for (const stimulus of items.fitted(item).stimuli) {
      if (stimuli.has(stimulus.path)) continue;
      const path = names('stimuli', stimulus.id);
      stimuli.set(stimulus.path, { id: `stimulus-${stimuli.size + 1}`, path, stimulus });
    }
  }

  function* documents(): Generator<PendingDocument> {
    for (const { quiz, path } of tests)
      yield [path, () => writeTest(quiz, { markup, path, fileAt }, itemPath)];
    for (const { bank, path } of banks) yield [path, () => writeBank(bank, markup, path, itemPath)];
    for (const { stimulus, path } of stimuli.values())
      yield [path, () => writeStimulus(stimulus, { markup, path, fileAt })];
    const stimulusAt = (at: string): string | null => stimuli.get(at)?.path ?? null;
    for (const item of holding.items) {
      const path = itemPaths.get(itemId(item.id))!;
      yield [path, () => writeItem(items.fitted(item), { markup, path, fileAt }, stimulusAt)];
    }
  }

  function* resources(): Generator<WrittenResource> {
    const resource = (
      kind: string,
      id: string,
      href: string,
      over: Partial<WrittenResource> = {},
    ): WrittenResource => ({
      id,
      type: `imsqti_${kind}_xml${dialect.resources}`,
      href,
      files: [],
      dependencies: [],
      named: true,
      ...over,
    });
    const needed = (ids: readonly string[]): string[] =>
      [...new Set(ids)].filter((id) => itemPaths.has(id)).map((id) => `item-${id}`);
    for (const { quiz, path } of tests)
      yield resource('test', `test-${quiz.id}`, path, { dependencies: needed(quizItems(quiz)) });
    for (const { bank, path } of banks)
      yield resource('section', `bank-${bank.id}`, path, { dependencies: needed(bank.items) });
    for (const { id, path } of stimuli.values()) yield resource('stimulus', id, path);
    const used = new Set<string>();
    for (const item of holding.items) {
      const id = itemId(item.id);
      const own = item.files.flatMap((f) => files.get(f.path) ?? []);
      own.forEach((f) => used.add(f));
      yield resource('item', `item-${id}`, itemPaths.get(id)!, {
        files: own,
        dependencies: version === '2.1' ? [] : item.stimuli.map((s) => stimuli.get(s.path)!.id),
        metadata: item.category ? block('metadata', {}, [lomCategory(item.category)]) : '',
      });
    }
    const others = [...files.values()].filter((f) => !used.has(f));
    for (const [at, path] of others.entries())
      yield resource('item', `file-${at + 1}`, path, { type: 'webcontent' });
  }

  const manifest: Manifest = {
    attrs: { xmlns: dialect.package.namespace, 'xmlns:imsmd': LOM_NAMESPACE, identifier: 'manifest' },
    head: [
      block('metadata', {}, [
        tag('schema', {}, dialect.package.schema),
        tag('schemaversion', {}, dialect.package.schemaVersion),
        holding.title ? lomTitle('imsmd', holding.title) : '',
      ]),
      tag('organizations'),
    ],
    resources: resources(),
  };
  return { entries: packageEntries(manifest, documents(), files, readFile, findings), findings };
}

const lomCategory = (category: NonNullable<Item['category']>): string =>
  block('imsmd:lom', {}, [
    block('imsmd:classification', {}, [
      block('imsmd:taxonPath', {}, [
        block('imsmd:taxon', {}, [block('imsmd:entry', {}, [tag('imsmd:string', {}, escapeText(category))])]),
      ]),
    ]),
  ]);
