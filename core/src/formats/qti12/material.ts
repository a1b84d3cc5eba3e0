// <material><mattext texttype="text/html">&lt;p&gt;Which light?&lt;/p&gt;</mattext><matimage
// uri="fix.png"/></material>
import { buildContent, type ContentContext } from '../../content/build.ts';
import { htmlContent } from '../../content/html.ts';
import type { ContentNode } from '../../model/content.ts';
import { cutList } from '../../model/lists.ts';
import { element as make, text } from '../../model/make.ts';
import { attrOf } from '../../xml/attrs.ts';
import {
  descendants,
  elements,
  isElement,
  rawXml,
  textOf,
  type XmlDocument,
  type XmlElement,
} from '../../xml/tree.ts';
import { own } from '../../model/own.ts';

export interface MaterialContext {
  readonly content: ContentContext;
  readonly document: XmlDocument;
}

type Handler = (element: XmlElement, context: MaterialContext) => readonly ContentNode[];

const opaque: Handler = (element, { document, content }) => {
  content.note('opaque-content', 'warning', { what: `<${element.name}>` });
  return [{ kind: 'opaque', standard: 'qti1.2', name: element.name, xml: rawXml(document, element) }];
};

/** Elements that only group. */
const group: Handler = (element, context) => readMaterials(element, context);

const HANDLERS: Readonly<Record<string, Handler>> = {
  material: group,
  flow_mat: group,
  solutionmaterial: group,
  hintmaterial: group,
  mattext: (element, context) => mattext(element, context),
  matemtext: (element, context) => [make('em', mattext(element, context))],
  matbreak: () => [make('br')],
  matimage,
  mataudio: (element, context) => media('audio', element, context),
  matvideo: (element, context) => media('video', element, context),
  matref: (element, context) => referred(element, context),
  material_ref: (element, context) => referred(element, context),
  // Another wording of the same, for those who cannot use the first.
  altmaterial: (element, { content }) => {
    content.note('opaque-content', 'note', { what: `<${element.name}>` });
    return [];
  },
  matapplet: opaque,
  matapplication: opaque,
  mat_extension: opaque,
};

export function isMaterial(element: XmlElement): boolean {
  return Object.hasOwn(HANDLERS, element.name);
}

export function readMaterial(element: XmlElement, context: MaterialContext): readonly ContentNode[] {
  return (own(HANDLERS, element.name) ?? opaque)(element, context);
}

/** The content of everything inside an element that holds material. */
export function readMaterials(parent: XmlElement, context: MaterialContext): readonly ContentNode[] {
  const inside = elements(parent);
  if (inside.length === 1) return readMaterial(inside[0]!, context);
  return cutList(inside.flatMap((e) => readMaterial(e, context)));
}

/** Material that stands elsewhere in the document, by its identifier or label. */
function referred(element: XmlElement, context: MaterialContext): readonly ContentNode[] {
  const id = attrOf(element, 'linkrefid');
  const found = [...HOLDERS]
    .flatMap((name) => descendants(context.document.root, name))
    .find((m) => id !== '' && (attrOf(m, 'label') === id || attrOf(m, 'ident') === id));
  return found && !isInside(element, found) ? readMaterial(found, context) : opaque(element, context);
}

const HOLDERS = ['material', 'mattext', 'matimage', 'mataudio', 'matvideo'];

function isInside(element: XmlElement, holder: XmlElement): boolean {
  for (let at: XmlElement | null = element; at; at = at.parent) if (at === holder) return true;
  return false;
}

function mattext(element: XmlElement, { content, document }: MaterialContext): readonly ContentNode[] {
  const type = attrOf(element, 'texttype').toLowerCase();
  if (element.children.some(isElement)) return buildContent(element.children, content);
  const value = textOf(element);
  if (type === 'text/html' || type === 'text/xhtml' || type === 'application/xhtml+xml')
    return htmlContent(value, content);
  if (type === 'text/rtf') return opaque(element, { content, document });
  const uri = attrOf(element, 'uri');
  if (uri && !value.trim()) return [make('a', [text(uri)], { href: content.resolve(uri, 'file') })];
  return value ? [text(value)] : [];
}

function matimage(element: XmlElement, { content }: MaterialContext): readonly ContentNode[] {
  const attrs: Record<string, string> = {};
  const uri = attrOf(element, 'uri');
  if (attrOf(element, 'embedded').toLowerCase() === 'base64' || (!uri && textOf(element).trim())) {
    const type = attrOf(element, 'imagtype').toLowerCase() || 'image/png';
    const base64 = textOf(element).replace(/\s+/gu, '');
    attrs['src'] = content.embed?.(base64, type) ?? `data:${type};base64,${base64}`;
    if (!/^image\/(?:png|jpeg|gif|webp)$/u.test(type)) {
      content.note('active-content-removed', 'warning', { what: `embedded ${type}` });
      return [];
    }
  } else if (uri) attrs['src'] = content.resolve(uri, 'file');
  for (const key of ['width', 'height']) if (attrOf(element, key)) attrs[key] = attrOf(element, key);
  const label = attrOf(element, 'label');
  if (label) attrs['alt'] = label;
  return [make('img', [], attrs)];
}

function media(name: string, element: XmlElement, { content }: MaterialContext): readonly ContentNode[] {
  const uri = attrOf(element, 'uri');
  return uri ? [make(name, [], { src: content.resolve(uri, 'file'), controls: 'controls' })] : [];
}
