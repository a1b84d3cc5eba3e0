/** Escaping for XML text and attribute values, and a small writer for indented elements. */

// Characters XML 1.0 cannot hold at all (section 2.2, "Characters").
const ILLEGAL =
  // eslint-disable-next-line no-control-regex
  /[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;

/**
 * Stands for a line break that belongs to content, so that indenting never touches it. No XML text can hold
 * it.
 */
const KEPT_BREAK = '\u0001';

export function escapeText(value: string): string {
  return keepBreaks(
    value
      .replace(ILLEGAL, '\uFFFD')
      .replace(/&/g, '&amp;')
      .replace(/</g, '&lt;')
      .replace(/>/g, '&gt;')
      .replace(/\r/g, '&#13;'),
  );
}

/** XML that goes out as it came in: its line breaks are not indented. */
export function keepBreaks(xml: string): string {
  return xml.replace(/\n/g, KEPT_BREAK);
}

/** Text that goes out alone, and not into an indented document: its line breaks are its own. */
export const withBreaks = (xml: string): string => xml.replaceAll(KEPT_BREAK, '\n');

function escapeAttribute(value: string): string {
  return escapeText(value).replaceAll(KEPT_BREAK, '&#10;').replace(/"/g, '&quot;').replace(/\t/g, '&#9;');
}

export type Attributes = Readonly<Record<string, string | number | boolean | null | undefined>>;

/** ` name="value"` for each attribute that is not null; in the order given. */
export function attributes(attrs: Attributes): string {
  let out = '';
  for (const [name, value] of Object.entries(attrs)) {
    if (value === null || value === undefined) continue;
    out += ` ${name}="${escapeAttribute(String(value))}"`;
  }
  return out;
}

/** An element on one line; `content` is already XML. */
export function tag(name: string, attrs: Attributes = {}, content: string | readonly string[] = ''): string {
  const inner = typeof content === 'string' ? content : content.join('');
  return inner ? `<${name}${attributes(attrs)}>${inner}</${name}>` : `<${name}${attributes(attrs)}/>`;
}

/** An element whose children stand on lines of their own, indented by two blanks. */
export function block(name: string, attrs: Attributes, children: readonly string[]): string {
  const kept = children.filter((c) => c !== '');
  if (kept.length === 0) return tag(name, attrs);
  return `<${name}${attributes(attrs)}>\n${kept.map((c) => indent(c)).join('\n')}\n</${name}>`;
}

const indent = (value: string): string =>
  `${value.startsWith('<') ? '  ' : ''}${value.replaceAll('\n<', '\n  <')}`;

const DECLARATION = '<?xml version="1.0" encoding="UTF-8"?>\n';

/** A whole document from its root element. */
export function xmlDocument(root: string): string {
  return `${DECLARATION}${withBreaks(root)}\n`;
}

/** A document that ends with an element of very many children. */
export interface LongDocument {
  readonly name: string;
  readonly attrs: Attributes;
  /** What stands before that element. */
  readonly head: readonly string[];
  /** The element's name. */
  readonly list: string;
  readonly children: Iterable<string>;
}

/** The text of a document, as `xmlDocument` and `block` write it, piece by piece: its children may be made as they go. */
export function* documentPieces({ name, attrs, head, list, children }: LongDocument): Generator<string> {
  const line = (xml: string): string => (xml === '' ? '' : withBreaks(`${indent(xml)}\n`));
  yield `${DECLARATION}<${name}${attributes(attrs)}>\n`;
  for (const xml of head) yield line(xml);
  let empty = true;
  for (const xml of children) {
    if (empty && xml !== '') yield line(`<${list}>`);
    empty &&= xml === '';
    yield line(xml);
  }
  yield line(empty ? tag(list) : `</${list}>`);
  yield `</${name}>\n`;
}
