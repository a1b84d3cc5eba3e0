import type { ContentNode } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { choicesOf } from '../model/options.ts';
import { interactionsOf, walk } from '../model/visit.ts';
import { plain } from '../model/plainText.ts';
import { own } from '../model/own.ts';

/** Inline mark-up that changes what is read; anything else that shows the same counts as the same. */
const MARKS: Readonly<Record<string, string>> = {
  b: 'b',
  strong: 'b',
  i: 'i',
  em: 'i',
  u: 'u',
  ins: 'u',
  s: 's',
  strike: 's',
  del: 's',
  sub: 'sub',
  sup: 'sup',
  tt: 'code',
  code: 'code',
};
const BREAKS = new Set([
  'p',
  'div',
  'br',
  'li',
  'tr',
  'td',
  'th',
  'pre',
  'blockquote',
  'h1',
  'h2',
  'h3',
  'h4',
  'h5',
  'h6',
  'hr',
  'dd',
  'dt',
  'caption',
]);
const LATEX = /\\\(.+?\\\)|\\\[.+?\\\]|\$\$.+?\$\$/gsu;

/** The mark that a style amounts to. */
function styleMark(style: string | undefined): string | undefined {
  if (!style) return undefined;
  if (/text-decoration:[^;]*underline/u.test(style)) return 'u';
  if (/text-decoration:[^;]*line-through/u.test(style)) return 's';
  if (/font-weight:\s*(?:bold|[6-9]00)/u.test(style)) return 'b';
  return /font-style:\s*italic/u.test(style) ? 'i' : undefined;
}

/**
 * Content in a form in which two that show the same are identical. Mathematics, images and feedback stand
 * apart.
 */
export function canonicalText(nodes: readonly ContentNode[]): string {
  const parts: string[] = [];
  const add = (list: readonly ContentNode[]): void => {
    for (const node of list) {
      switch (node.kind) {
        case 'text':
          parts.push(node.text);
          break;
        case 'element': {
          const mark = own(MARKS, node.name) ?? styleMark(node.attrs['style']);
          if (BREAKS.has(node.name)) parts.push('\n');
          if (mark) parts.push(`‹${mark}›`);
          add(node.children);
          if (mark) parts.push(`‹/${mark}›`);
          if (BREAKS.has(node.name)) parts.push('\n');
          break;
        }
        case 'textEntry':
        case 'inlineChoice':
        case 'gap':
          parts.push(' ___ ');
          break;
        case 'hottextChoice':
          add(node.content);
          break;
        case 'gapMatch':
        case 'hottext':
          parts.push('\n');
          add(node.prompt);
          parts.push('\n');
          add(node.content);
          parts.push('\n');
          break;
        case 'template':
          parts.push(`‹if ${node.template} ${node.identifier} ${node.show}›`);
          add(node.children);
          break;
        case 'printedVariable':
          parts.push(`‹${node.id}›`);
          break;
        case 'opaque':
          parts.push(`‹${node.name}›`);
          break;
        case 'custom':
        case 'math':
        case 'feedback':
        case 'rubricBlock':
        case 'infoControl':
        case 'endAttempt':
          break;
        default:
          parts.push('\n');
          add(node.prompt);
          parts.push('\n');
      }
    }
  };
  add(nodes);
  return parts
    .join('')
    .normalize('NFC')
    .replace(/\u00A0/gu, ' ')
    .replace(LATEX, ' ')
    .replace(/[ \t]+/gu, ' ')
    .replace(/\s*\n\s*/gu, '\n')
    .trim();
}

/** Mathematics of an item: MathML by its structure, LaTeX by its source. */
export function canonicalMath(nodes: readonly ContentNode[]): string[] {
  const found: string[] = [];
  walk(nodes, (node) => {
    if (node.kind === 'math') found.push(mathText(node.children));
    else if (node.kind === 'text')
      for (const m of node.text.matchAll(LATEX)) found.push(m[0].replace(/\s+/gu, ''));
  });
  return found;
}

function mathText(nodes: readonly ContentNode[]): string {
  return nodes
    .map((node) => {
      if (node.kind === 'text') return node.text.trim();
      if (node.kind !== 'element') return '';
      if (node.name === 'annotation') return '';
      const inner = mathText(node.children);
      return node.name === 'mrow' || node.name === 'semantics' || node.name === 'mstyle'
        ? inner
        : `${node.name}(${inner})`;
    })
    .join('');
}

/** Lower-case words of everything an item says, choices included, in a form free of punctuation. */
export function wordsOf(item: Pick<Item, 'body'>): string[] {
  const choices = choicesOf(item).map((c) => plain(c.content) || c.label);
  const text = [plain(item.body), ...choices].join(' ').normalize('NFKC').toLowerCase();
  // Scripts without blanks between words are taken letter by letter.
  return (
    text.match(/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]|[\p{L}\p{N}]+/gu) ?? []
  );
}

/** A short, stable name for what an item asks: wording, mathematics and choices, whatever their order. */
export function fingerprint(item: Pick<Item, 'body'>): string {
  const choices = choicesOf(item).map(
    (c) => canonicalText(c.content) + canonicalMath(c.content).join() + c.label,
  );
  const kinds = interactionsOf(item).map((i) => i.kind);
  return hash(
    [
      wordsOf(item).join(' '),
      canonicalMath(item.body).join('|'),
      [...choices].sort().join('|'),
      kinds.join(),
    ].join('\u0001'),
  );
}

/** Two 32-bit multiplicative hashes side by side (common practice); not for secrets. */
function hash(text: string): string {
  let a = 0xdeadbeef;
  let b = 0x41c6ce57;
  for (let at = 0; at < text.length; at++) {
    const c = text.charCodeAt(at);
    a = Math.imul(a ^ c, 2654435761);
    b = Math.imul(b ^ c, 1597334677);
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return (a >>> 0).toString(16).padStart(8, '0') + (b >>> 0).toString(16).padStart(8, '0');
}
