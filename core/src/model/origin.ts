/** An element of an XML document, with its raw text. */
export interface XmlOrigin {
  readonly kind: 'xml';
  readonly path: string;
  readonly line: number;
  readonly column: number;
  readonly xml: string;
}

/** A line of a text: a row of a table, a place in JSON. */
export interface LineOrigin {
  readonly kind: 'line';
  readonly path: string;
  readonly line: number;
}

/** A block of a document that has pages and no lines. */
export interface BlockOrigin {
  readonly kind: 'block';
  readonly path: string;
  /** Counted from 1. */
  readonly block: number;
  /** Counted from 1; null where the document has no pages. */
  readonly page: number | null;
  readonly text: string;
}

/** Where a node stands in its source. Made-up trees leave it out. */
export type Origin = XmlOrigin | LineOrigin | BlockOrigin;

/** The place of an origin as findings name it; all null where there is none. */
export function placeOf(origin: Origin | null): {
  readonly path: string | null;
  readonly line: number | null;
  readonly column: number | null;
} {
  if (origin === null) return { path: null, line: null, column: null };
  return {
    path: origin.path,
    line: origin.kind === 'block' ? null : origin.line,
    column: origin.kind === 'xml' ? origin.column : null,
  };
}

/** A field of metadata as it was met: nothing is renamed or dropped. */
export interface MetaField {
  readonly label: string;
  readonly value: string;
}
