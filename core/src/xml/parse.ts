import { SaxesParser } from 'saxes';
import { isXmlEntity, KNOWN_ENTITIES } from './entities.ts';
import { quickTree } from './quick.ts';
import type { OpenElement, XmlDocument, XmlElement } from './tree.ts';

interface XmlProblem {
  readonly code: 'xml-malformed' | 'xml-too-deep';
  readonly detail: string;
  readonly line: number;
  readonly column: number;
}

interface XmlLimits {
  readonly maxDepth?: number;
}

type Parsed = { ok: true; document: XmlDocument } | { ok: false; problem: XmlProblem };

const MAX_DEPTH = 200;

/**
 * Parses XML strictly. HTML's named entities are known without a DTD; entities that the document
 * declares are left as they stand; a DOCTYPE is passed over and never fetched.
 * @returns the document, or the first problem with line and column (counted from 1)
 */
export function parseXml(text: string, { maxDepth = MAX_DEPTH }: XmlLimits = {}): Parsed {
  const document = quickTree(text, maxDepth);
  return document ? { ok: true, document } : parseSlowly(text, maxDepth);
}

class Stop extends Error {
  constructor(readonly problem: XmlProblem) {
    super(problem.detail);
  }
}

/** The same for whatever there is in a document: by saxes, which also says what is wrong with it and where. */
export function parseSlowly(text: string, maxDepth: number): Parsed {
  const parser = new SaxesParser({ xmlns: false, position: true });
  const entities = Object.create(KNOWN_ENTITIES) as Record<string, string>;
  const known = new Set<string>();
  parser.ENTITIES = new Proxy(entities, {
    get(all, name: string) {
      if (!isXmlEntity(name) && !Object.hasOwn(all, name) && name in all) known.add(name);
      return all[name];
    },
  });
  const declaredEntities: string[] = [];
  let hasDoctype = false;
  let root: XmlElement | null = null;
  let current: OpenElement | null = null;
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
      if (!match[1] && !(name in KNOWN_ENTITIES)) entities[name] = `&${name};`;
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
    const made: OpenElement = {
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
    current = current.parent as OpenElement | null;
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
