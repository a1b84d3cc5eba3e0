/** A light element tree: local names, raw attribute names, offsets into the text. */
export interface XmlElement {
  readonly type: 'element';
  /** Local name; `prefix` holds what stood before the colon. */
  readonly name: string;
  readonly prefix: string;
  readonly attrs: Readonly<Record<string, string>>;
  readonly children: readonly XmlNode[];
  readonly parent: XmlElement | null;
  /** Offsets of the element in the document's text: text.slice(start, end) is its raw XML. */
  readonly start: number;
  readonly end: number;
}

/** An element while it is still being made. */
export type OpenElement = XmlElement & { readonly children: XmlNode[]; end: number };

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
  gather(parent, name, found);
  return found;
}

function gather(parent: XmlElement, name: string, found: XmlElement[]): void {
  for (const node of parent.children) {
    if (node.type !== 'element') continue;
    if (node.name === name) found.push(node);
    gather(node, name, found);
  }
}

/** Whether there is one. */
export function hasDescendant(parent: XmlElement, name: string): boolean {
  for (const node of parent.children)
    if (node.type === 'element' && (node.name === name || hasDescendant(node, name))) return true;
  return false;
}

/** The concatenated text of an element and its descendants, as it stands. */
export function textOf(element: XmlElement): string {
  const [only] = element.children;
  if (element.children.length === 1 && only!.type === 'text') return only!.text;
  let out = '';
  for (const node of element.children) out += node.type === 'text' ? node.text : textOf(node);
  return out;
}

const mentioned = new WeakMap<XmlDocument, Map<string, boolean>>();

/** Whether a word stands anywhere in a document; looked for once. What it does not have need not be searched its tree for. */
export function mentions(document: XmlDocument, word: string): boolean {
  let words = mentioned.get(document);
  if (!words) mentioned.set(document, (words = new Map<string, boolean>()));
  let does = words.get(word);
  if (does === undefined) words.set(word, (does = document.text.includes(word)));
  return does;
}

/** An element's raw XML, with the namespace declarations of its ancestors that its prefixes need. */
export function rawXml(document: XmlDocument, element: XmlElement): string {
  const raw = document.text.slice(element.start, element.end);
  // Whatever is declared above it, the root declares itself.
  if (element.parent === null || !mentions(document, 'xmlns:')) return raw;
  const used = new Set([...raw.matchAll(/[<\s]([A-Za-z_][\w.-]*):[A-Za-z_]/gu)].map((match) => match[1]!));
  let declarations = '';
  for (const prefix of used) {
    if (prefix === 'xml' || prefix === 'xmlns' || raw.includes(`xmlns:${prefix}=`)) continue;
    const uri = namespaceOf({ ...element, prefix });
    if (uri) declarations += ` xmlns:${prefix}="${uri.replace(/&/gu, '&amp;').replace(/"/gu, '&quot;')}"`;
  }
  return declarations ? raw.replace(/^<[^\s/>]+/u, (open) => open + declarations) : raw;
}
