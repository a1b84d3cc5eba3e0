import type { Run } from '../document/block.ts';
import { textOfRuns } from '../document/runs.ts';
import type { Label } from './labels.ts';
import type { Line } from './lines.ts';
import type { Role } from './words.ts';

/** What a document is cut into before anything of it is understood. */

/** How items are thought to be marked out in a document. */
export interface Cut {
  /** Shape of the questions' labels; null: they have none, and stand before their choices. */
  readonly question: string | null;
  /** Shapes of the choices' labels; `plain`: a line each, without one; empty: there are no choices. */
  readonly choices: readonly string[];
  /** Names of fields, folded. */
  readonly fields: ReadonlySet<string>;
  /** Fields stand before their question. */
  readonly fieldsLead: boolean;
  /** A line of a paragraph stands on a line of its own, as in texts and pages. */
  readonly wraps: boolean;
  /** Questions stand as far out as the first one: what is labelled alike further in is a list of their own. */
  readonly byLevel: boolean;
}
export const PLAIN_CHOICES = 'plain';

/** A piece of an item's text: runs, and the line they stand in. */
export interface Part {
  readonly line: Line;
  readonly runs: readonly Run[];
  /** It goes on in the paragraph of the part before. */
  readonly joins: boolean;
}
export interface RawChoice {
  readonly label: Label | null;
  readonly parts: Part[];
  readonly sign: string;
}
export interface RawField {
  readonly name: string;
  readonly folded: string;
  readonly parts: Part[];
  /** What somebody has said that it is; otherwise its name tells. */
  readonly role?: Role;
}
export interface RawItem {
  readonly label: Label | null;
  readonly start: Line;
  readonly stem: Part[];
  readonly choices: RawChoice[];
  readonly fields: RawField[];
  /** Lines before it that belong to no other item: headings, passages, or nothing that is understood. */
  readonly before: readonly Line[];
  /** What was written on a rule before its number. */
  readonly front: string | null;
  /** Questions of the document up to this one, as it is without anything said by hand: its id rests on that. */
  readonly count: number;
  /** Somebody has said that it begins here. */
  readonly byHand: boolean;
}

export interface Segmented {
  readonly items: readonly RawItem[];
  /** Lines that somebody has said are titles, and those that are nothing. */
  readonly headings: ReadonlySet<Line>;
  readonly aside: readonly Line[];
  /** Lines after the last item that are not its own. */
  readonly after: readonly Line[];
}

export const partText = (parts: readonly Part[]): string =>
  parts
    .map((p, at) => (at === 0 ? '' : p.joins ? ' ' : '\n') + (p.line.table ? '' : textOfRuns(p.runs)))
    .join('')
    .trim();

/** Every piece of an item: its text, its choices, its labelled lines. */
export const partsOf = ({ stem, choices, fields }: RawItem): Part[] => [
  ...stem,
  ...choices.flatMap((c) => c.parts),
  ...fields.flatMap((f) => f.parts),
];

/** Every line of an item. */
export const linesOfItem = (item: RawItem): Line[] => [item.start, ...partsOf(item).map((p) => p.line)];
