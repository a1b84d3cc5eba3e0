import { BLOCK_ELEMENTS } from '../model/blocks.ts';
import type { ContentNode } from '../model/content.ts';
import { cutList, NO_ATTRIBUTES } from '../model/lists.ts';
import { mapLists } from '../model/visit.ts';

const INLINE: ReadonlySet<ContentNode['kind']> = new Set([
  'text',
  'math',
  'opaque',
  'textEntry',
  'inlineChoice',
  'gap',
  'hottextChoice',
  'printedVariable',
  'endAttempt',
]);

/** Whether a node starts a block of its own when shown. */
export function isBlock(node: ContentNode): boolean {
  if (node.kind === 'element') return BLOCK_ELEMENTS.has(node.name);
  if (node.kind === 'feedback' || node.kind === 'template') return node.block;
  return !INLINE.has(node.kind);
}

/**
 * Removes white space that no reader sees: runs become one blank, blanks at the edges of blocks go.
 * Preformatted text stays. Idempotent.
 */
export function tidy(nodes: readonly ContentNode[], edges = true): readonly ContentNode[] {
  const [only] = nodes;
  if (nodes.length === 1 && only!.kind === 'text' && TIDY.test(only!.text)) return nodes;
  const merged: ContentNode[] = [];
  for (const node of nodes) {
    const last = merged[merged.length - 1];
    if (node.kind === 'text' && last?.kind === 'text')
      merged[merged.length - 1] = { kind: 'text', text: last.text + node.text };
    else merged.push(node);
  }
  const out: ContentNode[] = [];
  for (const [at, node] of merged.entries()) {
    if (node.kind !== 'text') {
      out.push(tidyNode(node));
      continue;
    }
    let text = UNTIDY.test(node.text) ? node.text.replace(/[ \t\r\n\f]+/gu, ' ') : node.text;
    const before = merged[at - 1];
    const after = merged[at + 1];
    if (text.startsWith(' ') && (before ? isBlock(before) || isBreak(before) : edges)) text = text.slice(1);
    if (text.endsWith(' ') && (after ? isBlock(after) || isBreak(after) : edges)) text = text.slice(0, -1);
    if (text) out.push(text === node.text ? node : { kind: 'text', text });
  }
  const same = out.length === nodes.length && out.every((node, at) => node === nodes[at]);
  return same ? nodes : cutList(out);
}

/** A text that stays as it is wherever it stands: words, and single blanks between them. */
const TIDY = /^[^ \t\r\n\f]+(?: [^ \t\r\n\f]+)*$/u;

/** White space that has to be run together; most text has none. */
const UNTIDY = /[\t\r\n\f]| {2}/u;

const isBreak = (node: ContentNode): boolean => node.kind === 'element' && node.name === 'br';

function tidyNode(node: ContentNode): ContentNode {
  if (node.kind === 'math' || (node.kind === 'element' && node.name === 'pre')) return node;
  return mapLists(node, (list, inside) => tidy(list, isBlock(inside)));
}

/**
 * Tidies a body and puts runs of inline content at its root into paragraphs, as QTI 2 wants its item body.
 */
export function bodyOf(nodes: readonly ContentNode[]): readonly ContentNode[] {
  const out: ContentNode[] = [];
  let run: ContentNode[] = [];
  const flush = (): void => {
    const inline = tidy(run);
    if (inline.length > 0) out.push({ kind: 'element', name: 'p', attrs: NO_ATTRIBUTES, children: inline });
    run = [];
  };
  for (const node of nodes) {
    if (isBlock(node)) {
      flush();
      out.push(node);
    } else run.push(node);
  }
  flush();
  return tidy(out);
}
