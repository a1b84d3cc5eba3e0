import type { Choice, ContentNode, Interaction } from './content.ts';
import type { Item } from './holding.ts';

/** The content lists directly inside a node, in document order. */
export function childrenOf(node: ContentNode): readonly (readonly ContentNode[])[] {
  switch (node.kind) {
    case 'text':
    case 'opaque':
    case 'textEntry':
    case 'gap':
    case 'printedVariable':
    case 'endAttempt':
      return [];
    case 'element':
    case 'math':
    case 'feedback':
    case 'rubricBlock':
    case 'template':
    case 'infoControl':
      return [node.children];
    case 'hottextChoice':
      return [node.content];
    case 'choice':
    case 'order':
    case 'associate':
    case 'inlineChoice':
    case 'graphicGapMatch':
      return [node.prompt, ...node.choices.map((c) => c.content)];
    case 'match':
      return [node.prompt, ...[...node.left, ...node.right].map((c) => c.content)];
    case 'gapMatch':
      return [node.prompt, ...node.choices.map((c) => c.content), node.content];
    case 'hottext':
      return [node.prompt, node.content];
    case 'media':
      return [node.prompt, node.media];
    case 'extendedText':
    case 'hotspot':
    case 'graphicOrder':
    case 'graphicAssociate':
    case 'selectPoint':
    case 'positionObject':
    case 'slider':
    case 'upload':
    case 'drawing':
      return [node.prompt];
    case 'custom':
      return [node.fallback];
  }
}

/** The same node with every content list directly inside it replaced. */
export function mapLists(
  node: ContentNode,
  map: (list: readonly ContentNode[], inside: ContentNode) => readonly ContentNode[],
): ContentNode {
  const choices = (list: readonly Choice[]): Choice[] =>
    list.map((c) => ({ ...c, content: map(c.content, node) }));
  switch (node.kind) {
    case 'text':
    case 'opaque':
    case 'textEntry':
    case 'gap':
    case 'printedVariable':
    case 'endAttempt':
      return node;
    case 'element':
    case 'math':
    case 'feedback':
    case 'rubricBlock':
    case 'template':
    case 'infoControl':
      return { ...node, children: map(node.children, node) };
    case 'hottextChoice':
      return { ...node, content: map(node.content, node) };
    case 'choice':
    case 'order':
    case 'associate':
    case 'inlineChoice':
    case 'graphicGapMatch':
      return { ...node, prompt: map(node.prompt, node), choices: choices(node.choices) };
    case 'match':
      return {
        ...node,
        prompt: map(node.prompt, node),
        left: choices(node.left),
        right: choices(node.right),
      };
    case 'gapMatch':
      return {
        ...node,
        prompt: map(node.prompt, node),
        choices: choices(node.choices),
        content: map(node.content, node),
      };
    case 'hottext':
      return { ...node, prompt: map(node.prompt, node), content: map(node.content, node) };
    case 'media':
      return { ...node, prompt: map(node.prompt, node), media: map(node.media, node) };
    case 'extendedText':
    case 'hotspot':
    case 'graphicOrder':
    case 'graphicAssociate':
    case 'selectPoint':
    case 'positionObject':
    case 'slider':
    case 'upload':
    case 'drawing':
      return { ...node, prompt: map(node.prompt, node) };
    case 'custom':
      return { ...node, fallback: map(node.fallback, node) };
  }
}

/**
 * Calls `visit` for every node, parents first. Iterative over siblings, so depth is bounded by the reader's
 * cap.
 */
export function walk(nodes: readonly ContentNode[], visit: (node: ContentNode) => void): void {
  for (const node of nodes) {
    visit(node);
    // By far the most of all nodes, without lists of lists.
    if (node.kind === 'text') continue;
    if (node.kind === 'element') walk(node.children, visit);
    else for (const list of childrenOf(node)) walk(list, visit);
  }
}

const NOT_INTERACTIONS: ReadonlySet<ContentNode['kind']> = new Set([
  'text',
  'element',
  'math',
  'feedback',
  'rubricBlock',
  'opaque',
  'gap',
  'hottextChoice',
  'printedVariable',
  'template',
  'infoControl',
]);

export function isInteraction(node: ContentNode): node is Interaction {
  return !NOT_INTERACTIONS.has(node.kind);
}

/** The interactions of an item in document order. */
export function interactionsOf(item: Pick<Item, 'body'>): readonly Interaction[] {
  if (last.body === item.body) return last.interactions;
  const found: Interaction[] = [];
  walk(item.body, (node) => {
    if (isInteraction(node)) found.push(node);
  });
  last = { body: item.body, interactions: found };
  return found;
}

/**
 * The last body asked about: checks, probes and comparisons all ask about one item many times in a row.
 * (One slot, since tables of weak references to every item cost the garbage collector more than they save.)
 */
let last: { body: readonly ContentNode[] | null; interactions: readonly Interaction[] } = {
  body: null,
  interactions: [],
};
