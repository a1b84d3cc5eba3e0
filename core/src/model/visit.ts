import type { Choice, ContentNode, Hotspot, Interaction, Picture } from './content.ts';
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
    for (const list of childrenOf(node)) walk(list, visit);
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

/**
 * Something of an interaction that a response names by identifier: a choice, a hotspot, a gap, a run of text.
 */
export interface Option {
  readonly id: string;
  readonly content: readonly ContentNode[];
  /** Said of a thing that has no content: a hotspot's label. */
  readonly label: string;
  readonly fixed: boolean;
}

const optionOf = (c: Choice): Option => ({ id: c.id, content: c.content, label: '', fixed: c.fixed });
const spotOption = (h: Hotspot): Option => ({
  id: h.id,
  content: [],
  label: h.label,
  fixed: h.fixed ?? false,
});

/** What can be picked on each side: one list, or sources and targets for those that pair. */
export function optionSets(interaction: Interaction): readonly (readonly Option[])[] {
  switch (interaction.kind) {
    case 'choice':
    case 'order':
    case 'associate':
    case 'inlineChoice':
      return [interaction.choices.map(optionOf)];
    case 'match':
      return [interaction.left.map(optionOf), interaction.right.map(optionOf)];
    case 'gapMatch': {
      const gaps: Option[] = [];
      walk(interaction.content, (node) => {
        if (node.kind === 'gap')
          gaps.push({ id: node.id, content: [], label: `gap ${gaps.length + 1}`, fixed: false });
      });
      return [interaction.choices.map(optionOf), gaps];
    }
    case 'hottext': {
      const found: Option[] = [];
      walk(interaction.content, (node) => {
        if (node.kind === 'hottextChoice')
          found.push({ id: node.id, content: node.content, label: '', fixed: false });
      });
      return [found];
    }
    case 'hotspot':
    case 'graphicOrder':
    case 'graphicAssociate':
      return [interaction.hotspots.map(spotOption)];
    case 'graphicGapMatch':
      return [interaction.choices.map(optionOf), interaction.hotspots.map(spotOption)];
    default:
      return [];
  }
}

/** All that can be picked in an item, in document order. */
export function choicesOf(item: Pick<Item, 'body'>): Option[] {
  return interactionsOf(item).flatMap((i) => optionSets(i).flat());
}

/** The response identifiers an interaction fills. */
export function responseIdsOf(interaction: Interaction): readonly string[] {
  if (interaction.kind === 'match' && interaction.rows) return Object.values(interaction.rows);
  return interaction.responseId === null ? [] : [interaction.responseId];
}

/** The interaction that fills a response. */
export function interactionFor(item: Pick<Item, 'body'>, responseId: string): Interaction | null {
  return interactionsOf(item).find((i) => responseIdsOf(i).includes(responseId)) ?? null;
}

/** Pictures that interactions stand on. */
export function picturesOf(interaction: Interaction): Picture[] {
  if (interaction.kind === 'positionObject') return [interaction.stage, interaction.picture];
  return 'picture' in interaction ? [interaction.picture] : [];
}

const BLOCKS = new Set([
  'p',
  'div',
  'li',
  'tr',
  'br',
  'h1',
  'h2',
  'h3',
  'h4',
  'h5',
  'h6',
  'pre',
  'blockquote',
  'td',
  'th',
  'dd',
  'dt',
  'caption',
  'hr',
  'table',
  'ul',
  'ol',
  'figure',
  'figcaption',
  'section',
]);

interface PlainOptions {
  /** What stands for a blank the student fills in. */
  readonly blank?: string;
  /** Whether an image counts by its alternative text. */
  readonly alternatives?: boolean;
}

/**
 * Plain text of content with white space collapsed. Feedback, rubric blocks and choices are not part of it.
 */
export function plain(nodes: readonly ContentNode[], options: PlainOptions = {}): string {
  const parts: string[] = [];
  const blank = options.blank ?? ' ___ ';
  const add = (list: readonly ContentNode[]): void => {
    for (const node of list) {
      switch (node.kind) {
        case 'text':
          parts.push(node.text);
          break;
        case 'element': {
          const block = BLOCKS.has(node.name);
          if (block) parts.push(' ');
          if (options.alternatives && node.name === 'img' && node.attrs['alt'])
            parts.push(` ${node.attrs['alt']} `);
          add(node.children);
          if (block) parts.push(' ');
          break;
        }
        case 'math':
        case 'template':
          add(node.children);
          break;
        case 'textEntry':
        case 'inlineChoice':
        case 'gap':
          parts.push(blank);
          break;
        case 'hottextChoice':
          add(node.content);
          break;
        case 'custom':
          add(node.fallback);
          break;
        case 'gapMatch':
        case 'hottext':
          parts.push(' ');
          add(node.prompt);
          parts.push(' ');
          add(node.content);
          parts.push(' ');
          break;
        case 'printedVariable':
          parts.push(`[${node.id}]`);
          break;
        case 'feedback':
        case 'rubricBlock':
        case 'opaque':
        case 'infoControl':
        case 'endAttempt':
          break;
        default:
          parts.push(' ');
          add(node.prompt);
          parts.push(' ');
      }
    }
  };
  add(nodes);
  const text = parts.join('');
  return (/\s\s|[^\S ]/u.test(text) ? text.replace(/\s+/gu, ' ') : text).trim();
}

/** The question as plain text: the body without choices and feedback; a blank inside the text is "___". */
export function stemText(item: Pick<Item, 'body'>): string {
  return plain(item.body).replace(/^(?:___ ?)+|(?: ?___)+$/gu, '');
}

/** What an option says: its text, the words of its picture, its label, else its identifier. */
export function optionText(option: Option): string {
  return plain(option.content) || plain(option.content, { alternatives: true }) || option.label || option.id;
}

const NAME_LENGTH = 80;
/** The first words of a text, with a mark where more follow; in a script without spaces, its first characters. */
function opening(text: string): string {
  const characters = Array.from(text);
  if (characters.length <= NAME_LENGTH) return text;
  const cut = characters.slice(0, NAME_LENGTH).join('');
  const words = cut.replace(/\s+\S*$/u, '');
  return `${words.length > cut.length / 2 ? words : cut}…`;
}

/** A name for people: title, else the first words of the stem, else the id. */
export function nameOf(item: Pick<Item, 'id' | 'title' | 'body'>): string {
  return (
    item.title || opening(stemText(item)) || opening(plain(item.body, { alternatives: true })) || item.id
  );
}
