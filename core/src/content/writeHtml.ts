import type { ContentNode } from '../model/content.ts';
import { attributes, escapeText, tag } from '../xml/write.ts';
import { URL_ATTRIBUTES } from './allow.ts';

const MATHML = 'http://www.w3.org/1998/Math/MathML';

/** Elements that have no end tag (HTML, "Void elements"). */
const VOID: ReadonlySet<string> = new Set(['br', 'col', 'hr', 'img', 'source', 'track', 'wbr']);

/** In HTML an empty element is not closed by a slash: what follows would stand in it. */
const htmlTag = (name: string, attrs: Readonly<Record<string, string>>, inner: string): string =>
  VOID.has(name) ? tag(name, attrs) : `<${name}${attributes(attrs)}>${inner}</${name}>`;

/**
 * Content as HTML, for formats whose text is HTML; interactions and what only QTI has are passed over.
 * @param slot what stands for everything that is no text, element or formula, where it is not passed over
 */
export function writeHtml(
  nodes: readonly ContentNode[],
  address: (path: string) => string,
  slot?: (node: ContentNode) => string,
): string {
  const inner = (list: readonly ContentNode[]): string => list.map(write).join('');
  const write = (node: ContentNode): string => {
    if (slot && node.kind !== 'text' && node.kind !== 'element' && node.kind !== 'math') return slot(node);
    switch (node.kind) {
      case 'text':
        return escapeText(node.text);
      case 'element': {
        const attrs: Record<string, string> = {};
        for (const [key, value] of Object.entries(node.attrs))
          attrs[key] = URL_ATTRIBUTES.has(key) ? address(value) : value;
        return htmlTag(node.name, attrs, inner(node.children));
      }
      case 'math':
        return tag('math', { xmlns: MATHML, ...node.attrs }, inner(node.children));
      case 'template':
      case 'infoControl':
        return inner(node.children);
      case 'hottextChoice':
        return inner(node.content);
      case 'gap':
        return '____';
      case 'printedVariable':
        return escapeText(`[${node.id}]`);
      case 'custom':
        return inner(node.fallback);
      default:
        return '';
    }
  };
  return inner(nodes);
}
