import { fixedItems } from '../../model/quizzes.ts';
import type { ItemFits } from '../../fit/itemFits.ts';
import { encodePath, fileStem } from '../../intake/paths.ts';
import { finding, type Finding } from '../../model/finding.ts';
import type { Item12 } from '../../model/conditions12.ts';
import type { Bank, Holding, Link, OutlineNode } from '../../model/holding.ts';
import { block, escapeText, keepBreaks, tag, xmlDocument } from '../../xml/write.ts';
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
import { QTI12_NAMESPACE, writeAssessment, writeObjectBank, type Target12 } from '../qti12/write.ts';
import { fittedById, mattext } from '../qti12/writePackage.ts';

export type CartridgeVersion = '1.1' | '1.2' | '1.3';

/** Addresses and types of one version. */
const dialect = (version: CartridgeVersion) => {
  const n = version.replace('.', 'p');
  return {
    namespace: `http://www.imsglobal.org/xsd/imscc${`v${n}`}/imscp_v1p1`,
    lom: `http://ltsc.ieee.org/xsd/imscc${`v${n}`}/LOM/manifest`,
    link: `http://www.imsglobal.org/xsd/imscc${`v${n}`}/imswl_v${n}`,
    type: (kind: string): string => `imsqti_xmlv1p2/imscc_xmlv${n}/${kind}`,
    linkType: `imswl_xmlv${n}`,
    topicType: `imsdt_xmlv${n}`,
    schemaVersion: `${version}.0`,
  };
};

/**
 * A Common Cartridge of a fitted holding. `bank` is the one question bank it may hold. Discussion topics and
 * other content go along as the files they are.
 */
export function writeCartridge(
  holding: Holding,
  items: ItemFits<Item12>,
  bank: Bank | null,
  version: CartridgeVersion,
  readFile: (path: string) => Uint8Array | null,
): { entries: PackageEntries; findings: Finding[] } {
  const d = dialect(version);
  const documents: PendingDocument[] = [];
  const findings: Finding[] = [];
  const places = filePlaces(
    holding.files.map((f) => f.path),
    ['quizzes', 'banks', 'links'],
  );
  const address = (path: string): string =>
    places.has(path) ? `$IMS-CC-FILEBASE$${encodePath(places.get(path)!)}` : path;
  const target: Target12 = {
    cartridge: true,
    namespace: QTI12_NAMESPACE,
    itemOf: fittedById(items),
    address,
    html: (nodes) => mattext(nodes, address),
  };
  const names = pathMaker();
  const ids = manifestIds();
  const resources: WrittenResource[] = [];
  /** What the outline may point at: ids of quizzes and links, paths of files. */
  const places2resource = new Map<string, { resource: string; title: string }>();
  const add = (
    path: string,
    xml: () => string,
    type: string,
    prefix: string,
    id: string,
    dependencies: readonly string[] = [],
  ): string => {
    documents.push([path, xml]);
    const resource = ids(prefix, id);
    resources.push({ id: resource, type, href: path, files: [], dependencies, named: false });
    return resource;
  };
  const fileResources = new Map<string, string>();
  for (const place of places.values()) {
    const resource = ids('file', place);
    fileResources.set(place, resource);
    places2resource.set(place, { resource, title: place.split('/').pop()! });
  }
  const needs = (inside: readonly string[]): string[] => [
    ...new Set(
      inside
        .flatMap((id) => items.given(id)?.files ?? [])
        .flatMap((f) => fileResources.get(places.get(f.path) ?? '') ?? []),
    ),
  ];
  for (const quiz of holding.quizzes) {
    const inside = fixedItems(quiz);
    const resource = add(
      names('quizzes', quiz.id),
      () => writeAssessment(quiz, target),
      d.type('assessment'),
      'quiz',
      quiz.id,
      needs(inside),
    );
    places2resource.set(quiz.id, { resource, title: quiz.title || quiz.id });
  }
  if (bank)
    add(
      names('banks', bank.title || bank.id),
      () => writeObjectBank(bank, target),
      d.type('question-bank'),
      'bank',
      bank.id,
      needs(bank.items),
    );
  for (const link of holding.links) {
    const type = link.kind === 'web' ? d.linkType : 'imsbasiclti_xmlv1p0';
    const resource = add(names('links', link.id), () => linkXml(link, d.link), type, 'link', link.id);
    places2resource.set(link.id, { resource, title: link.title || link.url });
  }
  for (const [from, place] of places) {
    const content = readFile(from);
    const topic =
      content !== null &&
      /<(?:\w+:)?topic[\s>]/u.test(new TextDecoder().decode(content.subarray(0, 600))) &&
      place.toLowerCase().endsWith('.xml');
    resources.push({
      id: fileResources.get(place)!,
      type: topic ? d.topicType : 'webcontent',
      href: place,
      files: [],
      dependencies: [],
      named: !topic,
    });
  }
  const manifest: Manifest = {
    attrs: { identifier: 'manifest', xmlns: d.namespace, 'xmlns:lomimscc': d.lom },
    head: [
      block('metadata', {}, [
        tag('schema', {}, 'IMS Common Cartridge'),
        tag('schemaversion', {}, d.schemaVersion),
        lomTitle('lomimscc', holding.title || 'Cartridge'),
      ]),
      block('organizations', {}, [
        block('organization', { identifier: 'outline', structure: 'rooted-hierarchy' }, [
          block('item', { identifier: 'root' }, outline(holding, places2resource, places)),
        ]),
      ]),
    ],
    resources,
  };
  return { entries: packageEntries(manifest, documents, places, readFile, findings), findings };
}

/** The folders as they came; quizzes and links that stand in none follow. */
function outline(
  holding: Holding,
  targets: ReadonlyMap<string, { resource: string; title: string }>,
  places: ReadonlyMap<string, string>,
): string[] {
  const shown = new Set<string>();
  let count = 0;
  const write = (node: OutlineNode): string[] => {
    const refers = node.refers === null ? null : (places.get(node.refers) ?? node.refers);
    const target = refers === null ? undefined : targets.get(refers);
    const children = node.children.flatMap(write);
    if (!target && children.length === 0) return [];
    if (refers !== null) shown.add(refers);
    count += 1;
    return [
      block('item', { identifier: `item_${count}`, identifierref: target?.resource ?? null }, [
        tag('title', {}, escapeText(node.title || target?.title || '')),
        ...children,
      ]),
    ];
  };
  const known = holding.outline.flatMap(write);
  const rest = [...holding.quizzes, ...holding.links].filter((x) => !shown.has(x.id));
  return [...known, ...rest.flatMap((x) => write({ id: x.id, title: x.title, refers: x.id, children: [] }))];
}

/** A link's own XML where it has one of this kind; else made from what is known of it. */
function linkXml(link: Link, namespace: string): string {
  if (link.kind === 'lti' && link.xml) return xmlDocument(keepBreaks(link.xml));
  if (link.kind === 'web')
    return xmlDocument(
      block('webLink', { xmlns: namespace }, [
        tag('title', {}, escapeText(link.title)),
        tag('url', { href: link.url, ...webAttributes(link.xml) }),
      ]),
    );
  return xmlDocument(
    block(
      'cartridge_basiclti_link',
      {
        xmlns: 'http://www.imsglobal.org/xsd/imslticc_v1p0',
        'xmlns:blti': 'http://www.imsglobal.org/xsd/imsbasiclti_v1p0',
      },
      [tag('blti:title', {}, escapeText(link.title)), tag('blti:launch_url', {}, escapeText(link.url))],
    ),
  );
}

function webAttributes(xml: string | null): Record<string, string> {
  const out: Record<string, string> = {};
  for (const name of ['target', 'windowFeatures']) {
    const found = new RegExp(`\\s${name}="([^"]*)"`, 'u').exec(xml ?? '');
    if (found) out[name] = found[1]!;
  }
  return out;
}

/** The title of a bank as a cartridge carries it: the name of its file, in which not every sign can stand. */
export const carriedTitle = (title: string): string => fileStem(pathMaker()('banks', title));

/** Banks beyond the first go into cartridges of their own, with nothing else but what they need. */
export function seriesOf(holding: Holding): { holding: Holding; bank: Bank | null }[] {
  const inQuizzes = new Set(holding.quizzes.flatMap(fixedItems));
  const inBanks = new Set(holding.banks.flatMap((b) => b.items));
  const loose = holding.items.map((i) => i.id).filter((id) => !inQuizzes.has(id) && !inBanks.has(id));
  const banks: Bank[] = [
    ...holding.banks,
    ...(loose.length > 0
      ? [{ id: 'loose-items', title: 'Other items', items: loose, metadata: [], origin: null }]
      : []),
  ];
  const [first = null, ...more] = banks;
  const at = new Map(holding.items.map((item, n) => [item.id, n]));
  const only = (bank: Bank): Holding => {
    const places = new Set(bank.items.flatMap((id) => at.get(id) ?? []));
    const items = [...places].sort((a, b) => a - b).map((n) => holding.items[n]!);
    const files = new Set(items.flatMap((i) => i.files.map((f) => f.path)));
    return {
      ...holding,
      title: bank.title || holding.title,
      quizzes: [],
      links: [],
      outline: [],
      items,
      files: holding.files.filter((f) => files.has(f.path)),
    };
  };
  return [{ holding, bank: first }, ...more.map((bank) => ({ holding: only(bank), bank }))];
}

export function seriesFindings(holding: Holding, series: readonly { bank: Bank | null }[]): Finding[] {
  const out: Finding[] = [];
  if (series.length > 1)
    out.push(
      finding(
        'loss-bank',
        'warning',
        {},
        { what: `a cartridge holds one bank; ${series.length} cartridges are written` },
      ),
    );
  const set = new Set(holding.quizzes.flatMap(fixedItems));
  const twice = holding.banks.flatMap((b) => b.items).filter((id) => set.has(id)).length;
  if (twice > 0)
    out.push(
      finding(
        'loss-bank',
        'warning',
        {},
        { what: `${twice} items stand in a quiz and in a bank, and are written in both` },
      ),
    );
  for (const bank of holding.banks) {
    const arrives = carriedTitle(bank.title || bank.id);
    if (bank.title && bank.title !== arrives)
      out.push(
        finding(
          'loss-bank',
          'note',
          { node: bank.id },
          {
            what: `its title “${bank.title}” has no place but the name of its file, and arrives as “${arrives}”`,
          },
        ),
      );
  }
  return out;
}
