import { characterEntities } from 'character-entities';
import { SaxesParser } from 'saxes';

/** A light element tree on saxes' events: local names, raw attribute names, offsets into the text. */
export interface XmlElement {
  readonly type: 'element';
  /** Local name; `prefix` holds what stood before the colon. */
  readonly name: string;
  readonly prefix: string;
  readonly attrs: Readonly<Record<string, string>>;
  readonly children: XmlNode[];
  readonly parent: XmlElement | null;
  /** Offsets of the element in the document's text: text.slice(start, end) is its raw XML. */
  readonly start: number;
  end: number;
}

interface XmlText {
  readonly type: 'text';
  readonly text: string;
}

export type XmlNode = XmlElement | XmlText;

export interface XmlDocument {
  readonly text: string;
  readonly root: XmlElement;
  /** Names of entities the document declares itself; never expanded. */
  readonly declaredEntities: readonly string[];
  readonly hasDoctype: boolean;
  /** Names of HTML's entities it uses without declaring them: they are read as what HTML means by them. */
  readonly knownEntities: readonly string[];
}

interface XmlProblem {
  readonly code: 'xml-malformed' | 'xml-too-deep';
  readonly detail: string;
  readonly line: number;
  readonly column: number;
}

interface XmlLimits {
  readonly maxDepth?: number;
}

/** XML 1.0, section 4.6: known to every document. */
const XML_ENTITIES = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };
const HTML_ENTITIES: Readonly<Record<string, string>> = Object.assign(
  Object.create(null) as Record<string, string>,
  characterEntities,
  XML_ENTITIES,
);

class Stop extends Error {
  constructor(readonly problem: XmlProblem) {
    super(problem.detail);
  }
}

/**
 * Parses XML strictly. HTML's named entities are known without a DTD; entities that the document
 * declares are left as they stand; a DOCTYPE is passed over and never fetched.
 * @returns the document, or the first problem with line and column (counted from 1)
 */
export function parseXml(
  text: string,
  limits: XmlLimits = {},
): { ok: true; document: XmlDocument } | { ok: false; problem: XmlProblem } {
  const maxDepth = limits.maxDepth ?? 200;
  const parser = new SaxesParser({ xmlns: false, position: true });
  const entities = Object.create(HTML_ENTITIES) as Record<string, string>;
  const known = new Set<string>();
  parser.ENTITIES = new Proxy(entities, {
    get(all, name: string) {
      if (!Object.hasOwn(XML_ENTITIES, name) && !Object.hasOwn(all, name) && name in all) known.add(name);
      return all[name];
    },
  });
  const declaredEntities: string[] = [];
  let hasDoctype = false;
  let root: XmlElement | null = null;
  let current: XmlElement | null = null;
  let depth = 0;
  let start = 0;

  const fail = (code: XmlProblem['code'], detail: string): never => {
    throw new Stop({ code, detail, line: parser.line, column: parser.column + 1 });
  };
  parser.on('error', (error) => fail('xml-malformed', error.message.replace(/^\d+:\d+: /u, '')));
  parser.on('doctype', (doctype) => {
    hasDoctype = true;
    for (const match of doctype.matchAll(/<!ENTITY\s+(%\s+)?([^\s"'>]+)/gu)) {
      const name = match[2]!;
      declaredEntities.push(name);
      if (!match[1] && !(name in HTML_ENTITIES)) entities[name] = `&${name};`;
    }
  });
  parser.on('opentagstart', (tag) => {
    // The event comes right after the name's last character; the tag began at its "<".
    start = text.lastIndexOf('<', parser.position - 1);
    void tag;
  });
  parser.on('opentag', (tag) => {
    depth += 1;
    if (depth > maxDepth) fail('xml-too-deep', `deeper than ${maxDepth} elements`);
    const colon = tag.name.indexOf(':');
    const made: XmlElement = {
      type: 'element',
      name: colon < 0 ? tag.name : tag.name.slice(colon + 1),
      prefix: colon < 0 ? '' : tag.name.slice(0, colon),
      attrs: tag.attributes as Record<string, string>,
      children: [],
      parent: current,
      start,
      end: 0,
    };
    if (current) current.children.push(made);
    else root = made;
    current = made;
  });
  const addText = (value: string): void => {
    if (current && value) current.children.push({ type: 'text', text: value });
  };
  parser.on('text', addText);
  parser.on('cdata', addText);
  parser.on('closetag', () => {
    depth -= 1;
    if (!current) return;
    current.end = parser.position;
    current = current.parent;
  });

  try {
    parser.write(text).close();
  } catch (error) {
    if (error instanceof Stop) return { ok: false, problem: error.problem };
    throw error;
  }
  if (!root) {
    return { ok: false, problem: { code: 'xml-malformed', detail: 'no root element', line: 1, column: 1 } };
  }
  return { ok: true, document: { text, root, declaredEntities, hasDoctype, knownEntities: [...known] } };
}

/** The namespace an element's prefix stands for, looked up through its ancestors; '' if none. */
export function namespaceOf(element: XmlElement): string {
  const key = element.prefix ? `xmlns:${element.prefix}` : 'xmlns';
  for (let at: XmlElement | null = element; at; at = at.parent) {
    const found = at.attrs[key];
    if (found !== undefined) return found;
  }
  return '';
}

export function isElement(node: XmlNode): node is XmlElement {
  return node.type === 'element';
}

/** Child elements, optionally only those of one local name. */
export function elements(parent: XmlElement, name?: string): XmlElement[] {
  const found: XmlElement[] = [];
  for (const node of parent.children) {
    if (node.type === 'element' && (name === undefined || node.name === name)) found.push(node);
  }
  return found;
}

export function child(parent: XmlElement, name: string): XmlElement | null {
  for (const node of parent.children) if (node.type === 'element' && node.name === name) return node;
  return null;
}

/** All descendants of one local name in document order. */
export function descendants(parent: XmlElement, name: string): XmlElement[] {
  const found: XmlElement[] = [];
  const visit = (element: XmlElement): void => {
    for (const node of element.children) {
      if (node.type !== 'element') continue;
      if (node.name === name) found.push(node);
      visit(node);
    }
  };
  visit(parent);
  return found;
}

/** The concatenated text of an element and its descendants, as it stands. */
export function textOf(element: XmlElement): string {
  let out = '';
  for (const node of element.children) out += node.type === 'text' ? node.text : textOf(node);
  return out;
}

/** Line and column (from 1) of offsets in one text; built once for each document. */
export function lineFinder(text: string): (offset: number) => { line: number; column: number } {
  let starts: number[] | null = null;
  return (offset) => {
    if (!starts) {
      starts = [0];
      for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) starts.push(at + 1);
    }
    let low = 0;
    let high = starts.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (starts[middle]! <= offset) low = middle;
      else high = middle - 1;
    }
    return { line: low + 1, column: offset - starts[low]! + 1 };
  };
}

const prefixed = new WeakMap<XmlDocument, boolean>();

function usesPrefixes(document: XmlDocument): boolean {
  let uses = prefixed.get(document);
  if (uses === undefined) prefixed.set(document, (uses = document.text.includes('xmlns:')));
  return uses;
}

/** An element's raw XML, with the namespace declarations of its ancestors that its prefixes need. */
export function rawXml(document: XmlDocument, element: XmlElement): string {
  const raw = document.text.slice(element.start, element.end);
  if (!usesPrefixes(document)) return raw;
  const used = new Set([...raw.matchAll(/[<\s]([A-Za-z_][\w.-]*):[A-Za-z_]/gu)].map((match) => match[1]!));
  let declarations = '';
  for (const prefix of used) {
    if (prefix === 'xml' || prefix === 'xmlns' || raw.includes(`xmlns:${prefix}=`)) continue;
    const uri = namespaceOf({ ...element, prefix });
    if (uri) declarations += ` xmlns:${prefix}="${uri.replace(/&/gu, '&amp;').replace(/"/gu, '&quot;')}"`;
  }
  return declarations ? raw.replace(/^<[^\s/>]+/u, (open) => open + declarations) : raw;
}
