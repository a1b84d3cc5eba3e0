import { escape } from '../../demo/qti12.ts';
import { posix } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import { cartridgeManifest, toolLink, webLink } from '../../demo/packages.ts';
import { zip, type Files } from '../../demo/zip.ts';
import { type Answer, type Held, type HeldItem, type HeldLink } from '../held.ts';
import { filesIn, held } from './files.ts';
import { readQti12 } from './qti12Read.ts';
import { writeBank12, writeQuiz12 } from './qti12Write.ts';
import { placedIn, readItem21, readTest21 } from './qti21Read.ts';
import { itemPath, writeBank21, writeItem21, writeTest21 } from './qti21Write.ts';
import { attr, deep, kid, kids, parse, tag, text, xmlDocument, type Element } from './xml.ts';

/** What a package holds, and its files as base64 by their paths. */
export interface Arrived {
  readonly held: Held;
  readonly files: Readonly<Record<string, string>>;
}

const MANIFEST = 'imsmanifest.xml';

/** Every mark-up of an item changed in the same way. */
export function withMarkup(item: HeldItem, change: (markup: string) => string): HeldItem {
  return {
    ...item,
    body: change(item.body),
    answer: answerWith(item.answer, change),
    feedback: item.feedback.map((f) => ({ ...f, text: change(f.text) })),
  };
}

function answerWith(answer: Answer, change: (markup: string) => string): Answer {
  if (answer.kind === 'kept') return { ...answer, xml: change(answer.xml) };
  if (answer.kind !== 'choice') return answer;
  return {
    ...answer,
    prompt: answer.prompt === null ? null : change(answer.prompt),
    choices: answer.choices.map((c) => ({ ...c, text: change(c.text) })),
  };
}

/** The files that an item's mark-up names. */
export function filesOf(item: HeldItem): string[] {
  const found = new Set<string>();
  withMarkup(item, (markup) => {
    for (const path of filesIn(markup)) found.add(path);
    return markup;
  });
  return [...found];
}

/**
 * Reads a package that was sent in: QTI 1.2, a cartridge with it, or QTI 2.1.
 * @throws Error with words for the one who sent it
 */
export function readPackage(bytes: Uint8Array): Arrived {
  const entries = unzipSync(bytes);
  const source = entries[MANIFEST];
  if (!source) throw new Error(`The package has no ${MANIFEST}.`);
  const resources = deep(parse(strFromU8(source)), 'resource').map((el) => ({
    el,
    type: attr(el, 'type') ?? '',
    path: posix.normalize(decodeURI(attr(el, 'href') ?? attr(kids(el, 'file')[0] ?? el, 'href') ?? '')),
  }));
  const known = new Set(Object.keys(entries));
  const open = (path: string): Element | null => {
    const content = entries[path];
    return content ? parse(strFromU8(content)) : null;
  };
  const of = (pattern: RegExp) =>
    resources.flatMap((r) => {
      const root = pattern.test(r.type) ? open(r.path) : null;
      return root ? [{ ...r, root }] : [];
    });
  const quizzes: Held['quizzes'][number][] = [];
  const banks: Held['banks'][number][] = [];
  const items = new Map<string, HeldItem>();
  for (const { path, root } of of(/^imsqti_xmlv1p2/u)) {
    const read = readQti12(root, path);
    for (const item of read.items)
      items.set(
        item.id,
        withMarkup(item, (m) => held(m, path, known)),
      );
    quizzes.push(...read.quizzes);
    banks.push(...read.banks);
  }
  const byPath = new Map<string, HeldItem>();
  for (const { path, root, el } of of(/^imsqti_item_xmlv2p1/u)) {
    const read = withMarkup(readItem21(root, categoryOf(el)), (m) => held(m, path, known));
    byPath.set(path, read);
    items.set(read.id, read);
  }
  const idOf = (from: string) => (href: string) =>
    byPath.get(posix.join(posix.dirname(from), decodeURI(href))) ?? null;
  for (const { path, root } of of(/^imsqti_section_xmlv2p1/u))
    banks.push({
      id: attr(root, 'identifier') ?? path,
      title: attr(root, 'title') ?? '',
      items: placedIn(root, idOf(path)).map((p) => p.item),
    });
  for (const { path, root } of of(/^imsqti_test_xmlv2p1/u)) quizzes.push(readTest21(root, idOf(path)));
  const pages = of(/^imswl_/u).map(({ el, root }): HeldLink => ({
    id: attr(el, 'identifier') ?? '',
    title: text(kid(root, 'title')),
    url: attr(kid(root, 'url') ?? root, 'href') ?? '',
  }));
  const tools = of(/^imsbasiclti_/u).map(({ el, root }): HeldLink => ({
    id: attr(el, 'identifier') ?? '',
    title: text(kid(root, 'title')),
    url: text(kid(root, 'launch_url')),
    tool: true,
  }));
  const links = [...pages, ...tools];
  const files: Record<string, string> = {};
  for (const path of [...items.values()].flatMap(filesOf))
    files[path] = Buffer.from(entries[path]!).toString('base64');
  return { held: drawsFilled({ quizzes, banks, items: [...items.values()], links }), files };
}

/** Draws from a bank by its name get its items, and the worth of those where they say none. */
function drawsFilled(given: Held): Held {
  const points = new Map(given.items.map((i) => [i.id, i.points]));
  return {
    ...given,
    quizzes: given.quizzes.map((q) => ({
      ...q,
      sections: q.sections.map((s) => {
        if (!s.draw) return s;
        const bank = given.banks.find((b) => b.id === s.draw!.bank);
        const pool = s.draw.pool.length > 0 ? s.draw.pool : (bank?.items ?? []);
        const { pointsEach } = s.draw;
        return {
          ...s,
          draw: {
            ...s.draw,
            pool,
            pointsEach: Number.isNaN(pointsEach) ? (points.get(pool[0] ?? '') ?? 0) : pointsEach,
          },
        };
      }),
    })),
  };
}

/** The category that a manifest gives an item, as a taxon (LOM, "Classification"). */
const categoryOf = (resource: Element): string | null =>
  text(deep(resource, 'taxon')[0] ?? null).trim() || null;

interface Sent {
  readonly held: Held;
  readonly title: string;
  readonly files: Readonly<Record<string, string>>;
  /** The course's section that a quiz or a link stands in. */
  readonly sectionOf: (id: string) => string;
}

const content = ({ held: { items }, files }: Sent): Files =>
  Object.fromEntries(
    items
      .flatMap(filesOf)
      .filter((path) => files[path] !== undefined)
      .map((path) => [path, new Uint8Array(Buffer.from(files[path]!, 'base64'))]),
  );

/**
 * A cartridge whose quizzes are written in the whole of QTI 1.2, draws and several banks included, as is met
 * in the field.
 */
export function writeCartridge(sent: Sent): Uint8Array {
  const { held: all, title, sectionOf } = sent;
  const files = content(sent);
  const documents: Files = {};
  const resources: Parameters<typeof cartridgeManifest>[2][number][] = [];
  const add = (path: string, xml: string, type: string, shown: { title?: string; folder?: string }): void => {
    documents[path] = xml;
    resources.push({ id: `R${resources.length + 1}`, type, href: path, ...shown });
  };
  for (const quiz of all.quizzes)
    add(`quiz-${quiz.id}.xml`, writeQuiz12(quiz, all), 'imsqti_xmlv1p2/imscc_xmlv1p3/assessment', {
      title: quiz.title,
      folder: sectionOf(quiz.id),
    });
  for (const bank of all.banks)
    add(
      `bank-${bank.id}.xml`,
      writeBank12(bank, all.items),
      'imsqti_xmlv1p2/imscc_xmlv1p3/question-bank',
      {},
    );
  for (const path of Object.keys(files))
    resources.push({ id: `R${resources.length + 1}`, type: 'webcontent', href: path });
  for (const { id, title: name, url, tool } of all.links) {
    documents[`links/${id}.xml`] = tool ? toolLink(name, url) : webLink(3, name, url);
    resources.push({
      id,
      type: tool ? 'imsbasiclti_xmlv1p0' : 'imswl_xmlv1p3',
      href: `links/${id}.xml`,
      title: name,
      folder: sectionOf(id),
    });
  }
  return zip({ [MANIFEST]: cartridgeManifest(3, title, resources), ...documents, ...files });
}

const LOM = 'http://ltsc.ieee.org/xsd/LOM';

/** A category as a taxon (LOM, "Classification"). */
const categoryXml = (category: string): string =>
  tag(
    'metadata',
    {},
    ['lom', 'classification', 'taxonPath', 'taxon', 'entry', 'string'].reduceRight(
      (inside, name) => tag(name, name === 'lom' ? { xmlns: LOM } : {}, inside),
      escape(category),
    ),
  );

/** A package of QTI 2.1; it has no place for links. */
export function writeQti21(sent: Sent): Uint8Array {
  const { held: all, title } = sent;
  const files = content(sent);
  const byId = new Map(all.items.map((i) => [i.id, i]));
  const documents: Files = {};
  const resources: string[] = [];
  const add = (id: string, type: string, path: string, xml: string, inside = '', more = ''): void => {
    documents[path] = xml;
    const file = tag('file', { href: path });
    resources.push(tag('resource', { identifier: id, type, href: path }, inside, file, more));
  };
  for (const quiz of all.quizzes)
    add(`T-${quiz.id}`, 'imsqti_test_xmlv2p1', `tests/${quiz.id}.xml`, writeTest21(quiz, byId));
  for (const bank of all.banks)
    add(`S-${bank.id}`, 'imsqti_section_xmlv2p1', `pools/${bank.id}.xml`, writeBank21(bank, byId));
  for (const item of all.items) {
    const category = item.category === null ? '' : categoryXml(item.category);
    const needs = filesOf(item).filter((path) => files[path] !== undefined);
    const more = needs.map((path) => tag('file', { href: encodeURI(path) })).join('');
    add(`I-${item.id}`, 'imsqti_item_xmlv2p1', itemPath(item), writeItem21(item), category, more);
  }
  const general = tag('general', {}, tag('title', {}, tag('string', {}, escape(title))));
  const metadata = tag(
    'metadata',
    {},
    tag('schema', {}, 'QTIv2.1 Package'),
    tag('schemaversion', {}, '1.0.0'),
    tag('lom', { xmlns: LOM }, general),
  );
  const manifest = tag(
    'manifest',
    { xmlns: 'http://www.imsglobal.org/xsd/imscp_v1p1', identifier: 'M' },
    metadata,
    tag('organizations'),
    tag('resources', {}, ...resources),
  );
  return zip({ [MANIFEST]: xmlDocument(manifest), ...documents, ...files });
}
