/** Where a node stands in its source, with its raw XML. Made-up trees leave it out. */
export interface Origin {
  readonly path: string;
  readonly line: number;
  readonly column: number;
  readonly xml: string;
}

/** A field of metadata as it was met: nothing is renamed or dropped. */
export interface MetaField {
  readonly label: string;
  readonly value: string;
}
