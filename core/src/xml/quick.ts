import { isXmlEntity, KNOWN_ENTITIES } from './entities.ts';
import type { XmlDocument, XmlElement, XmlNode } from './tree.ts';

/**
 * The tree of a document that is plainly well-formed (XML 1.0), found in one pass. Anything out of the ordinary is
 * doubtful: a document type, a processing instruction, names beyond ASCII, whatever may be wrong. Then it is null,
 * and a full parser says what it is.
 */
export function quickTree(text: string, maxDepth: number): XmlDocument | null {
  return DISALLOWED.test(text) ? null : new Quick(text, maxDepth).document();
}

/** What XML 1.0, section 2.2, does not allow as a character. */
// eslint-disable-next-line no-control-regex -- those are what is looked for
const DISALLOWED = /[\0-\x08\x0B\x0C\x0E-\x1F\uD800-\uDFFF\uFFFE\uFFFF]/u;
const DECLARATION =
  /<\?xml[ \t\r\n]+version[ \t\r\n]*=[ \t\r\n]*(?:"1\.0"|'1\.0')(?:[ \t\r\n]+encoding[ \t\r\n]*=[ \t\r\n]*(?:"[A-Za-z][\w.-]*"|'[A-Za-z][\w.-]*'))?(?:[ \t\r\n]+standalone[ \t\r\n]*=[ \t\r\n]*(?:"(?:yes|no)"|'(?:yes|no)'))?[ \t\r\n]*\?>/uy;

const [TAB, NEWLINE, RETURN, SPACE] = [9, 10, 13, 32];
const [BANG, DOUBLE, AMPERSAND, SINGLE, SLASH, LESS, EQUALS, GREATER, QUESTION] = Array.from(
  '!"&\'/<=>?',
  (c) => c.charCodeAt(0),
) as [number, number, number, number, number, number, number, number, number, number];

const ASCII = 128;
const table = (pattern: RegExp): Uint8Array =>
  Uint8Array.from({ length: ASCII }, (_, c) => Number(pattern.test(String.fromCharCode(c))));
const STARTS_NAME = table(/[A-Z_a-z]/u);
const IN_NAME = table(/[\w:.-]/u);

const isBlank = (c: number): boolean => c === SPACE || c === NEWLINE || c === TAB || c === RETURN;
/** Not a number is past the end. */
const startsName = (c: number): boolean => c < ASCII && STARTS_NAME[c] === 1;
const inName = (c: number): boolean => c < ASCII && IN_NAME[c] === 1;

/**
 * Attributes by name, without what every object has ("constructor" is a fair name for one). Made by a constructor,
 * since objects of one shape are smaller and read faster than dictionaries.
 */
function Attributes(this: Record<string, string>): void {
  // Filled by whoever makes one.
}
Attributes.prototype = Object.create(null);
const newAttributes = (): Record<string, string> =>
  new (Attributes as unknown as new () => Record<string, string>)();
const NO_ATTRIBUTES: Readonly<Record<string, string>> = Object.freeze(newAttributes());
const NO_CHILDREN: readonly XmlNode[] = Object.freeze([]);

/** An element while it is open. */
interface Open {
  readonly element: XmlElement & { children: readonly XmlNode[]; end: number };
  /** Its name as it stands, with its prefix. */
  readonly name: string;
  /** Where its children begin among the nodes that are not yet in their element. */
  readonly from: number;
}

/** Places for names; a power of two. */
const PLACES = 512;

/** Where it next stands; the end of the text where it does not. */
const placeOf = (text: string, wanted: string, from: number): number => {
  const at = text.indexOf(wanted, from);
  return at < 0 ? text.length : at;
};

class Quick {
  private at = 0;
  /** Whether a tag is closed by itself; of the last one read. */
  private empty = false;
  /** The same name is one string however often it stands there; by a hash of its letters, the last one met. */
  private readonly names: (string | undefined)[] = new Array<string | undefined>(PLACES).fill(undefined);
  /** Where the next reference begins, so that few texts are looked through for one. */
  private ampersand: number;
  private readonly known = new Set<string>();
  private readonly hasReturns: boolean;
  private readonly hasEnds: boolean;

  constructor(
    private readonly text: string,
    private readonly maxDepth: number,
  ) {
    this.hasReturns = text.includes('\r');
    this.hasEnds = text.includes(']]>');
    this.ampersand = placeOf(text, '&', 0);
  }

  document(): XmlDocument | null {
    const { text } = this;
    DECLARATION.lastIndex = 0;
    if (DECLARATION.test(text)) this.at = DECLARATION.lastIndex;
    const root = this.root();
    return root && { text, root, declaredEntities: [], hasDoctype: false, knownEntities: [...this.known] };
  }

  private root(): XmlElement | null {
    const { text, maxDepth } = this;
    let root: XmlElement | null = null;
    const open: Open[] = [];
    let current: Open | null = null;
    // Nodes whose element is still open; a place in it is used again, so that it never shrinks and grows.
    const nodes: XmlNode[] = [];
    let count = 0;
    for (;;) {
      const start = text.indexOf('<', this.at);
      const end = start < 0 ? text.length : start;
      if (end > this.at) {
        if (current) {
          const data = this.data(this.at, end);
          if (data === null) return null;
          nodes[count++] = { type: 'text', text: data };
        } else if (!this.blank(this.at, end)) return null;
      }
      if (start < 0) return current ? null : root;
      const next = text.charCodeAt(start + 1);
      if (next === SLASH) {
        if (!current || !this.closes(current.name, start + 2)) return null;
        const { element, from } = current;
        element.children = nodes.slice(from, count);
        element.end = this.at;
        count = from;
        open.pop();
        current = open[open.length - 1] ?? null;
      } else if (next === BANG) {
        const data = this.marked(start, current !== null);
        if (data === null) return null;
        if (data !== '') nodes[count++] = { type: 'text', text: data };
      } else {
        if (next === QUESTION || (root && !current) || open.length >= maxDepth) return null;
        const made = this.opened(start, current?.element ?? null, count + 1);
        if (!made) return null;
        nodes[count++] = made.element;
        root ??= made.element;
        if (this.empty) continue;
        current = made;
        open.push(made);
      }
    }
  }

  private blank(from: number, to: number): boolean {
    for (let at = from; at < to; at++) if (!isBlank(this.text.charCodeAt(at))) return false;
    return true;
  }

  /** Whether the end tag of that name stands there. */
  private closes(name: string, from: number): boolean {
    const { text } = this;
    if (!text.startsWith(name, from)) return false;
    let at = from + name.length;
    while (isBlank(text.charCodeAt(at))) at += 1;
    this.at = at + 1;
    return text.charCodeAt(at) === GREATER;
  }

  /** What stands in a CDATA section; nothing for a comment. */
  private marked(start: number, inside: boolean): string | null {
    const { text } = this;
    if (text.startsWith('<!--', start)) {
      const end = text.indexOf('--', start + 4);
      this.at = end + 3;
      return end >= 0 && text.charCodeAt(end + 2) === GREATER ? '' : null;
    }
    if (!inside || !text.startsWith('<![CDATA[', start)) return null;
    const end = text.indexOf(']]>', start + 9);
    if (end < 0) return null;
    this.at = end + 3;
    return this.oneNewline(text.slice(start + 9, end));
  }

  /** XML 1.0, section 2.11. */
  private oneNewline(text: string): string {
    return this.hasReturns && text.includes('\r') ? text.replace(/\r\n?/gu, '\n') : text;
  }

  private data(from: number, to: number): string | null {
    const given = this.text.slice(from, to);
    if (this.hasEnds && given.includes(']]>')) return null;
    const text = this.oneNewline(given);
    if (this.ampersand < from) this.ampersand = placeOf(this.text, '&', from);
    return this.ampersand < to ? this.expanded(text) : text;
  }

  /** A text with what its references stand for. */
  private expanded(text: string): string | null {
    let out = '';
    let from = 0;
    for (let at = text.indexOf('&'); at >= 0; at = text.indexOf('&', from)) {
      const end = text.indexOf(';', at);
      if (end < 0) return null;
      const meant = this.reference(text.slice(at + 1, end));
      if (meant === undefined) return null;
      out += text.slice(from, at) + meant;
      from = end + 1;
    }
    return out + text.slice(from);
  }

  private reference(name: string): string | undefined {
    if (!name.startsWith('#')) {
      const meant = KNOWN_ENTITIES[name];
      if (meant !== undefined && !isXmlEntity(name)) this.known.add(name);
      return meant;
    }
    const code = /^#(?:\d{1,7}|x[\dA-Fa-f]{1,6})$/u.test(name) ? Number(`0${name.slice(1)}`) : 0;
    if (code === 0 || code > 0x10ffff) return undefined;
    const character = String.fromCodePoint(code);
    return DISALLOWED.test(character) ? undefined : character;
  }

  private opened(start: number, parent: XmlElement | null, from: number): Open | null {
    const name = this.name(start + 1);
    if (name === null) return null;
    const attrs = this.attributes();
    if (attrs === null) return null;
    const colon = name.indexOf(':');
    const element = {
      type: 'element' as const,
      name: colon < 0 ? name : name.slice(colon + 1),
      prefix: colon < 0 ? '' : name.slice(0, colon),
      attrs,
      children: NO_CHILDREN,
      parent,
      start,
      end: this.at,
    };
    return { element, name, from };
  }

  /** The name that begins there; what follows it is next. */
  private name(from: number): string | null {
    const { text } = this;
    let c = text.charCodeAt(from);
    if (!startsName(c)) return null;
    let hash = 0;
    let at = from;
    do {
      hash = (Math.imul(hash, 31) + c) | 0;
      c = text.charCodeAt(++at);
    } while (inName(c));
    this.at = at;
    const place = hash & (PLACES - 1);
    const known = this.names[place];
    if (known?.length === at - from && text.startsWith(known, from)) return known;
    return (this.names[place] = text.slice(from, at));
  }

  private skipBlanks(): number {
    let c = this.text.charCodeAt(this.at);
    while (isBlank(c)) c = this.text.charCodeAt(++this.at);
    return c;
  }

  /** All attributes of a tag, to its end. */
  private attributes(): Readonly<Record<string, string>> | null {
    const { text } = this;
    let attrs: Record<string, string> | null = null;
    for (;;) {
      const before = this.at;
      const c = this.skipBlanks();
      if (c === GREATER || c === SLASH) {
        this.empty = c === SLASH;
        this.at += this.empty ? 2 : 1;
        return text.charCodeAt(this.at - 1) === GREATER ? (attrs ?? NO_ATTRIBUTES) : null;
      }
      if (this.at === before) return null;
      const name = this.name(this.at);
      if (name === null || this.skipBlanks() !== EQUALS) return null;
      this.at += 1;
      const value = this.value(this.skipBlanks());
      if (value === null) return null;
      attrs ??= newAttributes();
      if (attrs[name] !== undefined) return null;
      attrs[name] = value;
    }
  }

  /** An attribute's value; XML 1.0, section 3.3.3: white space that is written as it is counts as a blank. */
  private value(quote: number): string | null {
    if (quote !== DOUBLE && quote !== SINGLE) return null;
    const { text } = this;
    const from = this.at + 1;
    let plain = true;
    let at = from;
    for (let c = text.charCodeAt(at); c !== quote; c = text.charCodeAt(++at)) {
      if (c === LESS || Number.isNaN(c)) return null;
      if (c === AMPERSAND || c < SPACE) plain = false;
    }
    this.at = at + 1;
    const value = text.slice(from, at);
    return plain ? value : this.expanded(value.replace(/\r\n|[\t\n\r]/gu, ' '));
  }
}
