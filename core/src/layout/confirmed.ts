import { NOTHING_SAID, type ByHand } from './hand.ts';
import type { KnownLayout } from './known.ts';
import type { Layout } from './layout.ts';

/** What somebody has confirmed about documents and tables of questions, before they are read. */
export interface Confirmed {
  /** How every document of the source is laid out, whatever it looks like. */
  readonly layout: Layout | null;
  /** How those are that look alike. */
  readonly known: readonly KnownLayout[];
  readonly said: Said;
}

/** What was said of the documents of one source. */
export interface Said {
  /** The layout of all of them that it fits. */
  readonly series: Layout | null;
  readonly byPath: ReadonlyMap<string, SaidOfDocument>;
}
interface SaidOfDocument {
  readonly layout: Layout | null;
  readonly blocks: ByHand;
}

export const NOTHING_SAID_OF: Said = { series: null, byPath: new Map() };

/** What holds for one document. */
export interface ConfirmedOfDocument {
  readonly layout: Layout | null;
  readonly series: Layout | null;
  readonly known: readonly KnownLayout[];
  readonly hand: ByHand;
}

/** What was confirmed that concerns the document, or the table, of a path. */
export function confirmedFor({ layout, known, said }: Confirmed, path: string): ConfirmedOfDocument {
  const own = said.byPath.get(path);
  return {
    layout: own?.layout ?? layout,
    series: said.series,
    known,
    hand: own?.blocks ?? NOTHING_SAID,
  };
}
