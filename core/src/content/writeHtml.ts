import type { ContentNode } from '../model/content.ts';
import { escapeText, tag } from '../xml/write.ts';
import { URL_ATTRIBUTES } from './allow.ts';

const MATHML = 'http://www.w3.org/1998/Math/MathML';

/** Content as HTML, for formats whose text is HTML; interactions and what only QTI has are passed over. */
export function writeHtml(nodes: readonly ContentNode[], address: (path: string) => string): string {
  const inner = (list: readonly ContentNode[]): string => list.map(write).join('');
  const write = (node: ContentNode): string => {
    switch (node.kind) {
      case 'text':
        return escapeText(node.text);
      case 'element': {
        const attrs: Record<string, string> = {};
        for (const [key, value] of Object.entries(node.attrs))
          attrs[key] = URL_ATTRIBUTES.has(key) ? address(value) : value;
        return tag(node.name, attrs, inner(node.children));
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
