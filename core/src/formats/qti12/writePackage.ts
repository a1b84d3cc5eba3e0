import { writtenAddress } from '../../content/address.ts';
import { writeHtml } from '../../content/writeHtml.ts';
import type { ItemFits } from '../../fit/itemFits.ts';
import { encodePath } from '../../intake/paths.ts';
import { finding, type Finding } from '../../model/finding.ts';
import type { Item12 } from '../../model/conditions12.ts';
import type { ContentNode } from '../../model/content.ts';
import type { Holding } from '../../model/holding.ts';
import { block, escapeText, tag } from '../../xml/write.ts';
import {
  filePlaces,
  lomTitle,
  manifestIds,
  packageEntries,
  pathMaker,
  type Manifest,
  type PackageEntries,
  type PendingDocument,
  type WrittenResource,
} from '../packaging.ts';
import {
  QTI12_NAMESPACE,
  writeAssessment,
  writeLooseItems,
  writeObjectBank,
  type Target12,
} from './write.ts';

const CP = 'http://www.imsglobal.org/xsd/imscp_v1p1';
const LOM = 'http://www.imsglobal.org/xsd/imsmd_v1p2';

/** Content as a mattext: plain where it is plain, else HTML. */
export function mattext(nodes: readonly ContentNode[], address: (path: string) => string): string {
  const plain = nodes.every((n) => n.kind === 'text');
  if (plain)
    return tag(
      'mattext',
      { texttype: 'text/plain' },
      escapeText(nodes.map((n) => (n.kind === 'text' ? n.text : '')).join('')),
    );
  return tag('mattext', { texttype: 'text/html' }, escapeText(writeHtml(nodes, address)));
}

/**
 * A plain QTI 1.2 package of a fitted holding: one document a quiz and a bank, loose items together, files,
 * manifest.
 */
export function writeQti12Package(
  holding: Holding,
  items: ItemFits<Item12>,
  readFile: (path: string) => Uint8Array | null,
): { entries: PackageEntries; findings: Finding[] } {
  const findings: Finding[] = [];
  const places = filePlaces(
    holding.files.map((f) => f.path),
    [''],
  );
  const address = (path: string): string =>
    places.has(path) ? encodePath(places.get(path)!) : writtenAddress(path);
  const target: Target12 = {
    cartridge: false,
    namespace: QTI12_NAMESPACE,
    itemOf: fittedById(items),
    address,
    html: (nodes) => mattext(nodes, address),
  };
  const names = pathMaker();
  const ids = manifestIds();
  const resources: WrittenResource[] = [];
  const documents: PendingDocument[] = [];
  const add = (prefix: string, id: string, xml: () => string, inside: readonly string[]): void => {
    const path = names('', `${prefix}-${id}`);
    documents.push([path, xml]);
    const used = inside
      .flatMap((item) => items.given(item)?.files ?? [])
      .flatMap((f) => places.get(f.path) ?? []);
    resources.push({
      id: ids(prefix, id),
      type: 'imsqti_xmlv1p2',
      href: path,
      files: [...new Set(used)],
      dependencies: [],
      named: true,
    });
  };
  const held = new Set<string>();
  for (const quiz of holding.quizzes) {
    const inside = quiz.sections.flatMap((s) => [
      ...s.items.map((r) => r.item),
      ...(s.draw && s.draw.bank === null ? s.draw.pool : []),
    ]);
    inside.forEach((id) => held.add(id));
    add('quiz', quiz.id, () => writeAssessment(quiz, target), inside);
  }
  for (const bank of holding.banks) {
    // An item that a quiz holds too is written once, with the quiz; a bank keeps those that are its own.
    const own = { ...bank, items: bank.items.filter((id) => !held.has(id)) };
    own.items.forEach((id) => held.add(id));
    add('bank', bank.id, () => writeObjectBank(own, target), own.items);
    if (own.items.length < bank.items.length)
      findings.push(
        finding(
          'loss-bank',
          'warning',
          { node: bank.id },
          {
            what: `${bank.items.length - own.items.length} of its items stand in a quiz and are written there`,
          },
        ),
      );
  }
  const loose = holding.items.map((i) => i.id).filter((id) => !held.has(id));
  if (loose.length > 0) add('items', 'loose', () => writeLooseItems(loose, target), loose);
  for (const [at, [path, place]] of [...places].entries()) {
    if (!resources.some((r) => r.files.includes(place)))
      resources.push({
        id: ids('file', String(at + 1)),
        type: 'webcontent',
        href: place,
        files: [],
        dependencies: [],
        named: true,
      });
    void path;
  }
  const manifest: Manifest = {
    attrs: { identifier: 'manifest', xmlns: CP, 'xmlns:imsmd': LOM },
    head: [
      block('metadata', {}, [
        tag('schema', {}, 'IMS Content'),
        tag('schemaversion', {}, '1.1.3'),
        holding.title ? lomTitle('imsmd', holding.title).replaceAll('imsmd:string', 'imsmd:langstring') : '',
      ]),
      tag('organizations'),
    ],
    resources,
  };
  return { entries: packageEntries(manifest, documents, places, readFile, findings), findings };
}

/** Items as QTI 1.2 says them, by their ids; null where there is none. */
export const fittedById =
  (items: ItemFits<Item12>) =>
  (id: string): Item12 | null => {
    const item = items.given(id);
    return item ? items.fitted(item) : null;
  };
