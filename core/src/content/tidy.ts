import { BLOCK_ELEMENTS } from '../model/blocks.ts';
import type { ContentNode } from '../model/content.ts';
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
export function tidy(nodes: readonly ContentNode[], edges = true): ContentNode[] {
  const merged: ContentNode[] = [];
  for (const node of nodes) {
    const last = merged[merged.length - 1];
    if (node.kind === 'text' && last?.kind === 'text')
      merged[merged.length - 1] = { kind: 'text', text: last.text + node.text };
    else merged.push(node);
  }
  const out: ContentNode[] = [];
  merged.forEach((node, at) => {
    if (node.kind !== 'text') {
      out.push(tidyNode(node));
      return;
    }
    let text = UNTIDY.test(node.text) ? node.text.replace(/[ \t\r\n\f]+/gu, ' ') : node.text;
    const before = merged[at - 1];
    const after = merged[at + 1];
    if (text.startsWith(' ') && (before ? isBlock(before) || isBreak(before) : edges)) text = text.slice(1);
    if (text.endsWith(' ') && (after ? isBlock(after) || isBreak(after) : edges)) text = text.slice(0, -1);
    if (text) out.push(text === node.text ? node : { kind: 'text', text });
  });
  return out;
}

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
export function bodyOf(nodes: readonly ContentNode[]): ContentNode[] {
  const out: ContentNode[] = [];
  let run: ContentNode[] = [];
  const flush = (): void => {
    const inline = tidy(run);
    if (inline.length > 0) out.push({ kind: 'element', name: 'p', attrs: {}, children: inline });
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
