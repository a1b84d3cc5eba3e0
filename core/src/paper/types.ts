import type { Finding } from '../model/finding.ts';

/** What is set on paper, apart from how: the same for a page and for a word processor's document. */

export type Mark = 'bold' | 'italic' | 'underline' | 'strike' | 'sub' | 'super' | 'code';

export type Inline =
  | { readonly kind: 'text'; readonly text: string; readonly marks: readonly Mark[] }
  /** MathML, safe to stand in a page, and the words for where it cannot be set. */
  | {
      readonly kind: 'math';
      readonly markup: string;
      readonly plain: string;
      readonly display: boolean;
    }
  | {
      readonly kind: 'picture';
      readonly src: string;
      readonly alt: string;
      /** Pixels of CSS; null where the source says nothing. */
      readonly width: number | null;
      readonly height: number | null;
    }
  /** Room to write in, so many letters wide. */
  | { readonly kind: 'blank'; readonly letters: number }
  | { readonly kind: 'break' };

interface TextBlock {
  readonly kind: 'text';
  readonly style: 'normal' | 'heading' | 'quote' | 'code' | 'note';
  readonly inlines: readonly Inline[];
}

export interface Cell {
  readonly blocks: readonly Block[];
  readonly header: boolean;
  readonly columns: number;
  readonly rows: number;
}

/** Something to choose from: its letter, and what it says. */
export interface Option {
  readonly label: string;
  readonly blocks: readonly Block[];
}

export type Block =
  | TextBlock
  | { readonly kind: 'list'; readonly ordered: boolean; readonly items: readonly (readonly Block[])[] }
  | { readonly kind: 'table'; readonly rows: readonly (readonly Cell[])[] }
  /** What goes before each: a circle for one, a box for several, a line to write on, nothing for a mere list. */
  | {
      readonly kind: 'options';
      readonly mark: 'circle' | 'box' | 'line' | 'none';
      readonly options: readonly Option[];
    }
  /** Two lists side by side; letters of the right one go on the lines of the left. */
  | { readonly kind: 'columns'; readonly left: readonly Option[]; readonly right: readonly Option[] }
  /** Empty lines to write on. */
  | { readonly kind: 'lines'; readonly count: number }
  /** An empty frame to draw in, millimetres high. */
  | { readonly kind: 'frame'; readonly height: number };

export interface Question {
  readonly number: number;
  /** The item's id. */
  readonly id: string;
  readonly points: number;
  readonly blocks: readonly Block[];
  /** What stands on the answer sheet: letters to mark, or a line. */
  readonly sheet: { readonly letters: readonly string[]; readonly several: boolean } | null;
}

export interface PaperSection {
  readonly title: string;
  readonly instructions: readonly Block[];
  readonly questions: readonly Question[];
}

/** What goes above a paper, where somebody says it. */
export interface Head {
  readonly course: string;
  readonly date: string;
}

export interface Paper {
  readonly title: string;
  readonly version: string;
  readonly head: Head;
  readonly points: number;
  readonly minutes: number | null;
  readonly language: string | null;
  readonly instructions: readonly Block[];
  readonly sections: readonly PaperSection[];
}

/** One answer of the key: how it is right, how it is scored, and for essays by what it is marked. */
export interface KeyEntry {
  readonly number: number;
  readonly id: string;
  readonly title: string;
  readonly points: number;
  /** "B (18 fathoms)"; empty where a person marks. */
  readonly answers: readonly string[];
  readonly rule: string;
  /** Notes for who marks, solutions, rubrics. */
  readonly guide: readonly Block[];
}

export interface PaperKey {
  readonly title: string;
  readonly version: string;
  readonly head: Head;
  readonly points: number;
  readonly language: string | null;
  readonly entries: readonly KeyEntry[];
}

/** How it is set. */
export interface PaperStyle {
  readonly size: 'A4' | 'Letter';
  /** 18 points instead of 11, for those who see badly (common practice for large print). */
  readonly large: boolean;
  /** Sans serif, wider lines, left-aligned, no italics (common practice for dyslexia-friendly print). */
  readonly plain: boolean;
  /** A sheet of its own for the answers. */
  readonly sheet: boolean;
}

export const PAPER_STYLE: PaperStyle = { size: 'A4', large: false, plain: false, sheet: true };

/** What a paper cannot ask as it was. */
export interface OnPaper<T> {
  readonly made: T;
  readonly findings: readonly Finding[];
}
