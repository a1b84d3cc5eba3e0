import { DOMParser, XMLSerializer, type Element, type Node } from '@xmldom/xmldom';
import { escape } from '../../demo/qti12.ts';

/** A small hand for XML, over a DOM library of the registry. */

export type { Element };

/** A construct that this system does not know; what holds it is kept as it came. */
export class Unknown extends Error {}

/** @throws Error where the text is no XML */
export function parse(text: string): Element {
  const fail = (message: string): never => {
    throw new Error(message);
  };
  const parser = new DOMParser({
    onError: (level, message) => (level === 'warning' ? undefined : fail(message)),
  });
  return parser.parseFromString(text.replace(/^\uFEFF/u, ''), 'text/xml').documentElement!;
}

const isElement = (node: Node): node is Element => node.nodeType === 1;

/** The elements directly inside, all or those of a local name. */
export const kids = (of: Element, name?: string): Element[] =>
  [...of.childNodes].filter(
    (n): n is Element => isElement(n) && (name === undefined || n.localName === name),
  );

export const kid = (of: Element, name: string): Element | null => kids(of, name)[0] ?? null;

/** Every element of a local name inside, however deep. */
export const deep = (of: Element, name: string): Element[] => [...of.getElementsByTagNameNS('*', name)];

export const attr = (of: Element, name: string): string | null =>
  of.hasAttribute(name) ? of.getAttribute(name) : null;

export const text = (of: Element | null): string => of?.textContent ?? '';

/** An attribute or a text that has to be a number. @throws Unknown */
export function numberIn(said: string | null): number {
  const value = said === null || said.trim() === '' ? NaN : Number(said);
  if (!Number.isFinite(value)) throw new Unknown(`no number: ${said}`);
  return value;
}

/** An element's own mark-up, without the declaration of the namespace it is in. */
export const outer = (of: Node): string =>
  new XMLSerializer()
    .serializeToString(of)
    .replace(/ xmlns="http:\/\/www\.imsglobal\.org\/xsd\/(?:imsqti_v2p1|ims_qtiasiv1p2)"/gu, '');

/** The mark-up inside an element. */
export const inner = (of: Element): string => [...of.childNodes].map(outer).join('').trim();

type Attributes = Readonly<Record<string, string | number | boolean | null>>;

/** An element as text; attributes that are null are left out. What is inside is mark-up already. */
export function tag(name: string, attributes: Attributes = {}, ...inside: readonly string[]): string {
  const said = Object.entries(attributes)
    .filter(([, value]) => value !== null)
    .map(([key, value]) => ` ${key}="${escape(String(value))}"`)
    .join('');
  const content = inside.join('');
  return content === '' ? `<${name}${said}/>` : `<${name}${said}>${content}</${name}>`;
}

/** A whole document. */
export const xmlDocument = (content: string): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n${content}\n`;
