import { encodeBase64 } from '../model/base64.ts';
import type { ContentNode } from '../model/content.ts';
import type { FindingCode } from '../model/codes.ts';
import type { ParamsArgument, Severity } from '../model/finding.ts';
import { cut } from '../model/cut.ts';
import { cutList, NO_ATTRIBUTES } from '../model/lists.ts';
import type { XmlElement, XmlNode } from '../xml/tree.ts';
import { isActive, isHarmless, schemeOf } from './address.ts';
import { isModest, isModestAttribute } from './modest.ts';
import {
  ACTIVE,
  ALLOWED,
  MATHML,
  MATH_ATTRIBUTES,
  STYLE_PROPERTIES,
  STYLE_VALUE,
  URL_ATTRIBUTES,
} from './allow.ts';

/** What building content needs from its reader. */
export interface ContentContext {
  /** Turns an address met in content into a package path; leaves remote and in-page ones alone. */
  readonly resolve: (address: string, use: 'file' | 'link') => string;
  /** Makes a file of an embedded picture or data file; null where that is not possible. */
  readonly embed?: (base64: string, type: string) => string | null;
  readonly note: <C extends FindingCode>(code: C, severity: Severity, ...params: ParamsArgument<C>) => void;
  /** The standard's own elements (interactions, feedback blocks …); null means "not mine". */
  readonly special?: (element: XmlElement) => readonly ContentNode[] | null;
}

const SAFE_DATA = /^data:image\/(?:png|jpeg|gif|webp);base64,/iu;
/** A data file that a link carries in itself; it becomes a file of the package. */
const DATA_FILE = /^\s*data:([a-z]+\/[a-z0-9.+-]+)((?:;[a-z0-9-]+=[^;,]*)*)(;base64)?,(.*)$/isu;

/** Applies the allow-list to parsed XML or HTML and gives content nodes. What is taken out is noted. */
export function buildContent(nodes: readonly XmlNode[], context: ContentContext): readonly ContentNode[] {
  const [only] = nodes;
  if (nodes.length === 1 && only!.type === 'text') return [{ kind: 'text', text: only!.text }];
  const out: ContentNode[] = [];
  for (const node of nodes) {
    if (node.type === 'text') {
      const last = out[out.length - 1];
      if (last?.kind === 'text') out[out.length - 1] = { kind: 'text', text: last.text + node.text };
      else out.push({ kind: 'text', text: node.text });
    } else for (const made of buildElement(node, context)) out.push(made);
  }
  return cutList(out);
}

function buildElement(element: XmlElement, context: ContentContext): readonly ContentNode[] {
  const special = context.special?.(element);
  if (special) return special;
  const name = element.name.toLowerCase();
  if (name === 'math') {
    return [{ kind: 'math', attrs: mathAttributes(element), children: buildMath(element, context) }];
  }
  if (ACTIVE.has(name)) {
    context.note('active-content-removed', 'warning', { what: `<${name}>` });
    return [];
  }
  const allowed = ALLOWED.get(name);
  if (!allowed) {
    context.note('opaque-content', 'note', { what: `<${element.name}>` });
    return buildContent(element.children, context);
  }
  const attrs = keepAttributes(element, name, allowed, context);
  return [{ kind: 'element', name, attrs, children: buildContent(element.children, context) }];
}

function keepAttributes(
  element: XmlElement,
  name: string,
  allowed: readonly string[],
  context: ContentContext,
): Readonly<Record<string, string>> {
  const all = Object.entries(element.attrs);
  if (all.length === 0) return NO_ATTRIBUTES;
  const attrs: Record<string, string> = {};
  for (const [raw, given] of all) {
    const key = raw.toLowerCase();
    if (key.startsWith('on'))
      context.note('active-content-removed', 'warning', { what: `${key} on <${name}>` });
    if (!allowed.includes(key)) continue;
    if (key === 'style') {
      const style = safeStyle(given, context);
      if (style) attrs[key] = style;
    } else if (URL_ATTRIBUTES.has(key)) {
      const address = safeAddress(given, key, name, context);
      if (address !== null) attrs[key] = address;
    } else attrs[key] = given;
  }
  return attrs;
}

function safeAddress(given: string, key: string, name: string, context: ContentContext): string | null {
  // Browsers drop control characters and white space inside a scheme, so they must not hide one here.
  // eslint-disable-next-line no-control-regex
  const bare = given.replace(/[\u0000-\u0020\u007F-\u009F]+/gu, '');
  const use = key === 'href' || key === 'cite' || key === 'longdesc' ? 'link' : 'file';
  if (SAFE_DATA.test(bare)) {
    if (use !== 'file') return null;
    const [head = '', base64 = ''] = bare.split(',');
    return context.embed?.(base64, head.slice('data:'.length).replace(';base64', '')) ?? bare;
  }
  const embedded = use === 'link' ? dataFile(given, context) : null;
  if (embedded !== null) return embedded;
  if (!isActive(given) && (isHarmless(bare) || bare.startsWith('//'))) {
    if (use === 'file') context.note('remote-media', 'note', { address: cut(given, 200) });
    return given.trim();
  }
  // A variable for the package's root, or percent-encoding, may stand in front of what is meant.
  if (schemeOf(given) === null) {
    const resolved = context.resolve(given.trim(), use);
    if (!isActive(resolved)) return resolved;
  }
  context.note('active-content-removed', 'warning', {
    what: `${key}="${cut(given, 60)}" on <${name}>`,
  });
  return null;
}

/** The file that stands in the address of a link; null where there is none, or none of a kind that is only data. */
function dataFile(address: string, context: ContentContext): string | null {
  const found = DATA_FILE.exec(address);
  if (!found) return null;
  const [, type = '', , base64, content = ''] = found;
  const encoded = base64 ? content.replace(/\s+/gu, '') : base64OfText(content);
  return encoded === null ? null : (context.embed?.(encoded, type.toLowerCase()) ?? null);
}

/** A percent-encoded text as base64 of its bytes; null where the encoding is broken. */
function base64OfText(encoded: string): string | null {
  try {
    return encodeBase64(new TextEncoder().encode(decodeURIComponent(encoded)));
  } catch {
    return null;
  }
}

function safeStyle(style: string, context: ContentContext): string {
  const kept: string[] = [];
  for (const part of style.split(';')) {
    const colon = part.indexOf(':');
    if (colon < 0) continue;
    const property = part.slice(0, colon).trim().toLowerCase();
    const value = part.slice(colon + 1).trim();
    if (STYLE_PROPERTIES.test(property) && STYLE_VALUE.test(value) && isModest(property, value))
      kept.push(`${property}: ${value}`);
    else if (/url|expression|import|behavior|position/iu.test(part)) {
      context.note('active-content-removed', 'warning', { what: `style "${cut(part.trim(), 60)}"` });
    }
  }
  return kept.join('; ');
}

function mathAttributes(element: XmlElement): Record<string, string> {
  const attrs: Record<string, string> = {};
  for (const [key, value] of Object.entries(element.attrs))
    if (MATH_ATTRIBUTES.has(key) && isModestAttribute(key, value)) attrs[key] = value;
  return attrs;
}

function buildMath(parent: XmlElement, context: ContentContext): ContentNode[] {
  const out: ContentNode[] = [];
  for (const node of parent.children) {
    if (node.type === 'text') {
      const text = node.text.replace(/\s+/gu, ' ');
      if (text.trim()) out.push({ kind: 'text', text: text.trim() });
    } else if (MATHML.has(node.name)) {
      out.push({
        kind: 'element',
        name: node.name,
        attrs: mathAttributes(node),
        children: buildMath(node, context),
      });
    } else {
      context.note('active-content-removed', 'warning', { what: `<${node.name}> in mathematics` });
    }
  }
  return out;
}
