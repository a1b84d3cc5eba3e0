import { cut } from '../model/cut.ts';
import type { Bank, Item, Link, Quiz } from '../model/holding.ts';
import type { FindingCode, ParamsOf } from '../model/codes.ts';
import { findingWith, type Finding, type Severity } from '../model/finding.ts';
import type { Origin } from '../model/holding.ts';
import type { Rubric } from '../model/rubric.ts';
import type { Built } from '../layout/items/document.ts';
import type { Recognised } from '../layout/recognise.ts';
import { isElement, rawXml, type XmlDocument, type XmlElement } from '../xml/tree.ts';

export type IdKind = 'item' | 'quiz' | 'bank' | 'link' | 'section' | 'rubric';

/** What every reader is given, whatever it reads. */
export interface ReadingContext {
  readonly path: string;
  readonly add: (found: Finding) => void;
  /** A unique id for a thing of this kind: the source's own, with #2, #3 … where it is taken. */
  readonly claim: (kind: IdKind, id: string) => string;
  /** Told how each document of questions was understood, where somebody wants to see that. */
  readonly onRecognised?: (seen: RecognisedDocument) => void;
}

/** A document of questions, how it was understood, and what it became. */
export interface RecognisedDocument {
  readonly recognised: Recognised;
  readonly built: Built;
}

/**
 * What a reader of XML documents is given. References to other documents stay as they are met (bank names,
 * item addresses); reading/assemble resolves them once every document has been read.
 */
export interface DocumentContext extends ReadingContext {
  readonly document: XmlDocument;
  readonly place: (offset: number) => { line: number; column: number };
  /** Resolves an address met in content to a package path, and says whether the package holds it. */
  readonly file: (
    address: string,
    use: 'file' | 'link',
  ) => { address: string; path: string | null; present: boolean; moved?: string };
  /** The same as seen from another document. */
  readonly fileFrom: (path: string) => DocumentContext['file'];
  /**
   * Makes a file of a picture, or of data, that stands in a document as base64; its package path, or null where it
   * is neither.
   */
  readonly embed: (base64: string, type: string) => string | null;
  /** Another document of the package, parsed; null where there is none. */
  readonly sibling: (path: string) => XmlDocument | null;
  /** The title the package gives this document, '' if none. */
  readonly resourceTitle: string;
  readonly insideCartridge: boolean;
}

/** A section as read: references are still raw. */
export interface DraftSection {
  readonly id: string;
  readonly title: string;
  readonly shuffle: boolean;
  readonly instructions: string | null;
  readonly refs: readonly DraftRef[];
  readonly draw: DraftDraw | null;
  readonly line: number;
}

export type DraftRef =
  | { readonly by: 'id'; readonly item: string; readonly weight: number }
  | { readonly by: 'ident'; readonly ident: string; readonly weight: number; readonly line: number }
  | { readonly by: 'path'; readonly path: string; readonly weight: number; readonly line: number }
  | { readonly by: 'section'; readonly path: string; readonly line: number };

export interface DraftDraw {
  readonly pick: number;
  /** The bank's identifier as the source names it; null: the section's own items. */
  readonly bank: string | null;
  readonly pointsEach: number | null;
  readonly withReplacement: boolean;
  /** Only items whose metadata fit are in the pool. */
  readonly filter?: DrawFilter;
}

/** selection_metadata joined by and/or/not (QTI 1.2 Selection & Ordering). */
export type DrawFilter =
  | { readonly by: 'field'; readonly label: string; readonly value: string }
  | { readonly by: 'and' | 'or' | 'not'; readonly parts: readonly DrawFilter[] };

export type DraftQuiz = Omit<Quiz, 'sections'> & {
  readonly sections: readonly DraftSection[];
  readonly path: string;
};
/** A bank as read; a QTI 2 section file is one until a test refers to it. */
export type DraftBank = Omit<Bank, 'items'> & {
  readonly refs: readonly DraftRef[];
  readonly rawId: string;
  readonly path: string;
  readonly sections: readonly DraftSection[];
};
export interface DraftItem {
  readonly item: Item;
  readonly path: string;
  /** The identifier as the source has it; `item.id` may carry a number. */
  readonly rawId: string;
}

export interface Draft {
  readonly items: DraftItem[];
  readonly quizzes: DraftQuiz[];
  readonly banks: DraftBank[];
  readonly links: (Link & { path: string })[];
  readonly rubrics: Rubric[];
}

export const emptyDraft = (): Draft => ({ items: [], quizzes: [], banks: [], links: [], rubrics: [] });

function originWith(context: DocumentContext, element: XmlElement, xml: string): Origin {
  const { line, column } = context.place(element.start);
  return { kind: 'xml', path: context.path, line, column, xml };
}

/** Where an element stands, with its raw XML. */
export const originOf = (context: DocumentContext, element: XmlElement): Origin =>
  originWith(context, element, rawXml(context.document, element));

/** Where an element stands that holds others, with its start tag: what it holds has raw XML of its own. */
export function originOfHolder(context: DocumentContext, element: XmlElement): Origin {
  const first = element.children.find(isElement);
  const xml = context.document.text.slice(element.start, first?.start ?? element.end).trimEnd();
  return originWith(context, element, xml);
}

/**
 * Reads one question of a document. One that cannot be read is named and left out: it never costs the others.
 * @param read throws where there is something in it that nobody has thought of
 */
export function readingOne<T>(context: DocumentContext, element: XmlElement, read: () => T): T | null {
  try {
    return read();
  } catch (error) {
    report(context, element, 'item-unreadable', 'error', { detail: detailOf(error) });
    return null;
  }
}

const LONGEST_DETAIL = 120;
/** What an error says, for people who are to report it. */
export const detailOf = (error: unknown): string =>
  cut(error instanceof Error ? error.message : String(error), LONGEST_DETAIL);

/** Adds a finding placed at an element. */
export function report<C extends FindingCode>(
  context: DocumentContext,
  element: XmlElement,
  code: C,
  severity: Severity,
  params: ParamsOf<C>,
  node: string | null = null,
): void {
  const at = context.place(element.start);
  const where = { path: context.path, line: at.line, column: at.column, node };
  context.add(findingWith(code, severity, where, params));
}
