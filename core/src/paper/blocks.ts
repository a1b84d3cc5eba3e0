import temml from 'temml';
import { mathMarkup } from '../content/mathml.ts';
import { hasTex, pieces } from '../content/tex.ts';
import type { ContentNode, Interaction } from '../model/content.ts';
import { BLOCK_ELEMENTS } from '../model/blocks.ts';
import { own } from '../model/own.ts';
import { plain } from '../model/plainText.ts';
import { isInteraction } from '../model/visit.ts';
import type { Block, Cell, Inline, Mark } from './types.ts';

/** What an interaction leaves in the line where it stands, and below it. */
export interface Formed {
  readonly inline: readonly Inline[];
  readonly blocks: readonly Block[];
}

/** How interactions are asked; whatever they contain is set by `blocks`. */
export type FormOf = (interaction: Interaction, blocks: (nodes: readonly ContentNode[]) => Block[]) => Formed;

const MARKS: Readonly<Record<string, Mark>> = {
  b: 'bold',
  strong: 'bold',
  th: 'bold',
  i: 'italic',
  em: 'italic',
  cite: 'italic',
  var: 'italic',
  dfn: 'italic',
  u: 'underline',
  ins: 'underline',
  s: 'strike',
  strike: 'strike',
  del: 'strike',
  sub: 'sub',
  sup: 'super',
  code: 'code',
  kbd: 'code',
  samp: 'code',
  tt: 'code',
};

const HEADING = /^h[1-6]$/u;
/** What belongs to a page on a screen alone. */
const NOT_PRINTED: ReadonlySet<string> = new Set(['track', 'source', 'col', 'colgroup']);

/** Content as blocks; text between blocks becomes paragraphs. */
export function blocksOf(nodes: readonly ContentNode[], form: FormOf): Block[] {
  return new Setter(form).blocks(nodes, []);
}

class Setter {
  constructor(private readonly form: FormOf) {}

  blocks(
    nodes: readonly ContentNode[],
    marks: readonly Mark[],
    style: 'normal' | 'quote' | 'code' | 'heading' = 'normal',
  ): Block[] {
    const out: Block[] = [];
    let line: Inline[] = [];
    const flush = (): void => {
      if (line.some((i) => i.kind !== 'break' && (i.kind !== 'text' || i.text.trim() !== '')))
        out.push({ kind: 'text', style, inlines: line });
      line = [];
    };
    for (const node of nodes) {
      const block = this.block(node, marks, style);
      if (block) {
        flush();
        out.push(...block);
        continue;
      }
      const { inline, blocks } = this.inline(node, marks, style === 'code');
      line.push(...inline);
      if (blocks.length > 0) {
        flush();
        out.push(...blocks);
      }
    }
    flush();
    return out;
  }

  /** Null for what stands in a line. */
  private block(
    node: ContentNode,
    marks: readonly Mark[],
    style: 'normal' | 'quote' | 'code' | 'heading',
  ): Block[] | null {
    if (node.kind === 'template' && node.block) return this.blocks(node.children, marks, style);
    // What appears only after an answer, or on request, or to markers, is not on a candidate's paper.
    if (node.kind === 'feedback' || node.kind === 'infoControl') return [];
    if (node.kind === 'rubricBlock')
      return /scorer|tutor|proctor/u.test(node.view) && !node.view.includes('candidate')
        ? []
        : this.blocks(node.children, marks, style);
    if (node.kind !== 'element' || !BLOCK_ELEMENTS.has(node.name)) return null;
    switch (node.name) {
      case 'ul':
      case 'ol':
        return [
          {
            kind: 'list',
            ordered: node.name === 'ol',
            items: node.children
              .filter((c) => c.kind === 'element')
              .map((c) => this.blocks(c.children, marks, style)),
          },
        ];
      case 'table':
        return this.table(node.children, marks);
      case 'pre':
        return this.blocks(node.children, marks, 'code');
      case 'blockquote':
        return this.blocks(node.children, marks, 'quote');
      case 'hr':
        return [];
      default:
        return this.blocks(node.children, marks, HEADING.test(node.name) ? 'heading' : style);
    }
  }

  private table(nodes: readonly ContentNode[], marks: readonly Mark[]): Block[] {
    const rows: Cell[][] = [];
    const captions: Block[] = [];
    const visit = (list: readonly ContentNode[]): void => {
      for (const node of list) {
        if (node.kind !== 'element') continue;
        if (node.name === 'caption') captions.push(...this.blocks(node.children, marks));
        else if (node.name === 'tr') rows.push(this.row(node.children, marks));
        else visit(node.children);
      }
    };
    visit(nodes);
    return [...captions, ...(rows.some((r) => r.length > 0) ? [{ kind: 'table', rows } as const] : [])];
  }

  private row(nodes: readonly ContentNode[], marks: readonly Mark[]): Cell[] {
    return nodes.flatMap((cell): Cell[] => {
      if (cell.kind !== 'element' || (cell.name !== 'td' && cell.name !== 'th')) return [];
      const span = (name: string): number => Math.min(100, Math.max(1, Number(cell.attrs[name]) || 1));
      return [
        {
          blocks: this.blocks(cell.children, marks),
          header: cell.name === 'th',
          columns: span('colspan'),
          rows: span('rowspan'),
        },
      ];
    });
  }

  private inline(node: ContentNode, marks: readonly Mark[], verbatim: boolean): Formed {
    const only = (...inline: readonly Inline[]): Formed => ({ inline, blocks: [] });
    if (isInteraction(node)) return this.form(node, (nodes) => this.blocks(nodes, []));
    switch (node.kind) {
      case 'text':
        return only(...textInlines(node.text, marks, verbatim));
      case 'math':
        return only({
          kind: 'math',
          markup: mathMarkup(node),
          plain: plain([node]),
          display: node.attrs['display'] === 'block',
        });
      case 'element': {
        if (node.name === 'br') return only({ kind: 'break' });
        if (node.name === 'img') return only(pictureOf(node.attrs));
        if (NOT_PRINTED.has(node.name)) return only();
        if (node.name === 'audio' || node.name === 'video')
          return only({ kind: 'text', text: `[${node.name === 'audio' ? 'recording' : 'film'}]`, marks });
        const mark = own(MARKS, node.name);
        return this.inlines(
          node.children,
          mark && !marks.includes(mark) ? [...marks, mark] : marks,
          verbatim,
        );
      }
      case 'printedVariable':
        return only({ kind: 'text', text: `[${node.id}]`, marks });
      case 'template':
        return this.inlines(node.children, marks, verbatim);
      case 'hottextChoice':
        return this.inlines(node.content, [...marks, 'underline'], verbatim);
      case 'gap':
        return only({ kind: 'blank', letters: GAP_LETTERS });
      default:
        return only();
    }
  }

  private inlines(nodes: readonly ContentNode[], marks: readonly Mark[], verbatim: boolean): Formed {
    const inline: Inline[] = [];
    const blocks: Block[] = [];
    for (const node of nodes) {
      const block = this.block(node, marks, 'normal');
      const made = block ? { inline: [], blocks: block } : this.inline(node, marks, verbatim);
      inline.push(...made.inline);
      blocks.push(...made.blocks);
    }
    return { inline, blocks };
  }
}

/** Room for a letter or two. */
const GAP_LETTERS = 6;

const numberOf = (value: string | undefined): number | null => {
  const n = Number(value);
  return value === undefined || !Number.isFinite(n) || n <= 0 ? null : n;
};

const pictureOf = (attrs: Readonly<Record<string, string>>): Inline => ({
  kind: 'picture',
  src: attrs['src'] ?? '',
  alt: attrs['alt'] ?? '',
  width: numberOf(attrs['width']),
  height: numberOf(attrs['height']),
});

/** A text with its formulas in TeX set; verbatim text keeps its lines. */
function textInlines(text: string, marks: readonly Mark[], verbatim: boolean): Inline[] {
  if (verbatim)
    return text
      .split(/\r?\n/u)
      .flatMap((line, at): Inline[] => [
        ...(at > 0 ? [{ kind: 'break' } as const] : []),
        ...(line === '' ? [] : [{ kind: 'text', text: line, marks } as const]),
      ]);
  if (!hasTex(text)) return [{ kind: 'text', text, marks }];
  return pieces(text).map((piece): Inline => {
    const markup = piece.formula ? texMarkup(piece.text, piece.display) : null;
    return markup === null
      ? { kind: 'text', text: piece.typed, marks }
      : { kind: 'math', markup, plain: piece.text, display: piece.display };
  });
}

/** MathML of TeX; nothing in it is trusted. Null for what cannot be read. */
function texMarkup(tex: string, displayMode: boolean): string | null {
  try {
    return temml.renderToString(tex, {
      displayMode,
      throwOnError: true,
      trust: false,
      maxExpand: 200,
      maxSize: [20, 200],
      xml: true,
    });
  } catch {
    return null;
  }
}
