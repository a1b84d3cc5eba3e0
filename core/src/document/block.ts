import type { ContentNode } from '../model/content.ts';
import type { Finding } from '../model/finding.ts';
import type { FileRef } from '../model/holding.ts';

/** What every word-processor file, text and page is read into: one stream of blocks, whatever the format. */

/** How a run of text looks; nothing of it means anything yet. */
export interface Look {
  readonly bold: boolean;
  readonly italic: boolean;
  readonly underline: boolean;
  readonly strike: boolean;
  /** Background, as `#rrggbb` or a name; null: none. */
  readonly highlight: string | null;
  /** Colour of the letters; null: the document's own. */
  readonly color: string | null;
  readonly script: 'sub' | 'sup' | null;
}

export const PLAIN_LOOK: Look = {
  bold: false,
  italic: false,
  underline: false,
  strike: false,
  highlight: null,
  color: null,
  script: null,
};

export interface TextRun {
  readonly kind: 'text';
  readonly text: string;
  readonly look: Look;
}
export interface PictureRun {
  readonly kind: 'picture';
  /** Path in the document's files. */
  readonly path: string;
  readonly alt: string;
  /** Pixels; null where the document says nothing. */
  readonly width: number | null;
  readonly height: number | null;
}
export interface MathRun {
  readonly kind: 'math';
  readonly node: ContentNode;
}
/** The end of a line within a paragraph. */
interface BreakRun {
  readonly kind: 'break';
}
export type Run = TextRun | PictureRun | MathRun | BreakRun;

export interface Paragraph {
  readonly kind: 'paragraph';
  /** Counted from 1 over the whole document; what is empty is not counted. */
  readonly n: number;
  readonly page: number | null;
  /** Line of a text file; null elsewhere. */
  readonly line: number | null;
  /** 0: none; 1 to 6 as the document marks headings. */
  readonly heading: number;
  /** The label that automatic numbering shows, "12." or "b)" or "•"; it is no part of the runs. */
  readonly label: string;
  /** Depth of the list it stands in, from 0. */
  readonly level: number;
  /** Whether white space sets it apart from the paragraph before. */
  readonly apart: boolean;
  /** Whether it ends where the page does, so that it may go on in the next line. */
  readonly full: boolean;
  readonly runs: readonly Run[];
}

export interface TableBlock {
  readonly kind: 'table';
  readonly n: number;
  readonly page: number | null;
  readonly line: number | null;
  /** Rows of cells of paragraphs. */
  readonly rows: readonly (readonly (readonly Paragraph[])[])[];
}
export type Block = Paragraph | TableBlock;

/** A document read: nothing of what it says is understood yet. */
export interface BlockDocument {
  readonly path: string;
  /** What the document gives as its title; '' where it gives none. */
  readonly title: string;
  /** Whether its lines end where the paper does, and a paragraph goes on in the next one. */
  readonly wraps: boolean;
  readonly blocks: readonly Block[];
  /** Pictures that stand in it, each once. */
  readonly files: readonly FileRef[];
  readonly findings: readonly Finding[];
}

export const textRun = (text: string, look: Partial<Look> = {}): TextRun => ({
  kind: 'text',
  text,
  look: { ...PLAIN_LOOK, ...look },
});

type ParagraphParts = Partial<Omit<Paragraph, 'kind' | 'n' | 'runs'>>;

/** Numbers blocks as they come in; paragraphs without anything in them are not counted. */
export class Stream {
  readonly blocks: Block[] = [];
  private apart = false;

  /** @returns whether it was added: empty paragraphs only set the next one apart */
  paragraph(runs: readonly Run[], over: ParagraphParts = {}): boolean {
    const made = this.made(runs, over);
    if (!made) {
      this.apart = true;
      return false;
    }
    this.blocks.push(made);
    return true;
  }

  /** A paragraph that stands in a cell: it is not counted by itself. */
  cell(runs: readonly Run[], over: ParagraphParts = {}): Paragraph | null {
    return this.made(runs, over);
  }

  table(rows: TableBlock['rows'], over: { page?: number | null; line?: number | null } = {}): void {
    if (!rows.some((cells) => cells.some((c) => c.length > 0))) return;
    this.blocks.push({
      kind: 'table',
      n: this.blocks.length + 1,
      page: over.page ?? null,
      line: over.line ?? null,
      rows,
    });
    this.apart = true;
  }

  private made(runs: readonly Run[], over: ParagraphParts): Paragraph | null {
    const merged = mergeRuns(runs);
    if (!merged.some((r) => (r.kind === 'text' ? r.text.trim() !== '' : r.kind !== 'break'))) return null;
    const apart = over.apart ?? this.apart;
    this.apart = false;
    return {
      kind: 'paragraph',
      page: null,
      line: null,
      heading: 0,
      label: '',
      level: 0,
      full: true,
      ...over,
      n: this.blocks.length + 1,
      apart,
      runs: merged,
    };
  }
}

const sameLook = (a: Look, b: Look): boolean =>
  a.bold === b.bold &&
  a.italic === b.italic &&
  a.underline === b.underline &&
  a.strike === b.strike &&
  a.highlight === b.highlight &&
  a.color === b.color &&
  a.script === b.script;

/** Runs of one look that follow each other are one; empty ones go. */
export function mergeRuns(runs: readonly Run[]): Run[] {
  const out: Run[] = [];
  for (const run of runs) {
    const last = out.at(-1);
    if (run.kind === 'text' && run.text === '') continue;
    if (run.kind === 'text' && last?.kind === 'text' && sameLook(run.look, last.look))
      out[out.length - 1] = { ...last, text: last.text + run.text };
    else out.push(run);
  }
  return out;
}
