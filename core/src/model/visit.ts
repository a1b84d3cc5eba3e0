import type { Choice, ContentNode, Interaction } from './content.ts';
import type { Item } from './holding.ts';

/** The content lists directly inside a node, in document order. */
export function childrenOf(node: ContentNode): readonly (readonly ContentNode[])[] {
  switch (node.kind) {
    case 'text':
    case 'opaque':
    case 'textEntry':
      return [];
    case 'element':
    case 'math':
    case 'feedback':
    case 'rubricBlock':
      return [node.children];
    case 'choice':
      return [node.prompt, ...node.choices.map((c) => c.content)];
    case 'extendedText':
      return [node.prompt];
    case 'custom':
      return [node.fallback];
  }
}

/** Calls `visit` for every node, parents first. Iterative over siblings, so depth is bounded by the reader's cap. */
export function walk(nodes: readonly ContentNode[], visit: (node: ContentNode) => void): void {
  for (const node of nodes) {
    visit(node);
    for (const list of childrenOf(node)) walk(list, visit);
  }
}

export function isInteraction(node: ContentNode): node is Interaction {
  return (
    node.kind === 'choice' ||
    node.kind === 'textEntry' ||
    node.kind === 'extendedText' ||
    node.kind === 'custom'
  );
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

/** The choices of all choice interactions of an item. */
export function choicesOf(item: Pick<Item, 'body'>): Choice[] {
  return interactionsOf(item).flatMap((i) => (i.kind === 'choice' ? i.choices : []));
}

const BLOCKS = new Set(['p', 'div', 'li', 'tr', 'br', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'pre', 'blockquote', 'td', 'th', 'dd', 'dt', 'caption', 'hr', 'table', 'ul', 'ol', 'figure', 'figcaption', 'section']); // prettier-ignore

interface PlainOptions {
  /** What stands for a blank the student fills in. */
  readonly blank?: string;
  /** Whether an image counts by its alternative text. */
  readonly alternatives?: boolean;
}

/** Plain text of content with white space collapsed. */
export function plain(nodes: readonly ContentNode[], options: PlainOptions = {}): string {
  const parts: string[] = [];
  const add = (list: readonly ContentNode[]): void => {
    for (const node of list) {
      if (node.kind === 'text') parts.push(node.text);
      else if (node.kind === 'element') {
        const block = BLOCKS.has(node.name);
        if (block) parts.push(' ');
        if (options.alternatives && node.name === 'img' && node.attrs['alt'])
          parts.push(` ${node.attrs['alt']} `);
        add(node.children);
        if (block) parts.push(' ');
      } else if (node.kind === 'math') {
        add(node.children);
      } else if (node.kind === 'textEntry') parts.push(options.blank ?? ' ___ ');
      else if (node.kind === 'choice' || node.kind === 'extendedText') {
        parts.push(' ');
        add(node.prompt);
        parts.push(' ');
      } else if (node.kind === 'custom') add(node.fallback);
      // Feedback and rubric blocks are not part of what is asked.
    }
  };
  add(nodes);
  return parts.join('').replace(/\s+/gu, ' ').trim();
}

/** The question as plain text: the body without choices and feedback; a blank inside the text is "___". */
export function stemText(item: Pick<Item, 'body'>): string {
  return plain(item.body).replace(/^(?:___ ?)+|(?: ?___)+$/gu, '');
}

/** A name for people: title, else the first words of the stem, else the id. */
export function nameOf(item: Pick<Item, 'id' | 'title' | 'body'>): string {
  return (
    item.title ||
    stemText(item).slice(0, 80) ||
    plain(item.body, { alternatives: true }).slice(0, 80) ||
    item.id
  );
}
