import { TEX_DELIMITERS, TEX_OPENING } from '../model/texSpans.ts';

/** LaTeX between delimiters in text: `\(a\)` within a line, `\[a\]` and `$$a$$` on lines of their own. */

export interface Piece {
  /** Words, or the formula without its delimiters. */
  readonly text: string;
  /** As it stands in the text. */
  readonly typed: string;
  readonly formula: boolean;
  readonly display: boolean;
}

/** Formulas set in one text; an item with more is no item that a person reads, and each takes half a millisecond. */
export const MOST_FORMULAS = 400;
/** The longest formula that is set, in characters. */
export const LONGEST_FORMULA = 4000;

/** Whether a text may hold formulas at all. */
export const hasTex = (text: string): boolean => text.search(/\\[([]|\$\$/u) >= 0;

const words = (text: string): Piece => ({ text, typed: text, formula: false, display: false });

/**
 * Text cut into words and formulas, in time linear in its length: a delimiter that is never closed is
 * looked for once.
 */
export function pieces(text: string, most = MOST_FORMULAS): Piece[] {
  const out: Piece[] = [];
  const unclosed = new Set<string>();
  let from = 0;
  let formulas = 0;
  TEX_OPENING.lastIndex = 0;
  for (let found = TEX_OPENING.exec(text); found && formulas < most; found = TEX_OPENING.exec(text)) {
    const { open, close, display } = TEX_DELIMITERS.find((d) => d.open === found![0])!;
    if (unclosed.has(open)) continue;
    const end = text.indexOf(close, found.index + open.length);
    if (end < 0) {
      unclosed.add(open);
      continue;
    }
    const tex = text.slice(found.index + open.length, end);
    if (tex.trim() === '' || tex.length > LONGEST_FORMULA) {
      if (tex.length > LONGEST_FORMULA) TEX_OPENING.lastIndex = end + close.length;
      continue;
    }
    if (found.index > from) out.push(words(text.slice(from, found.index)));
    out.push({ text: tex, typed: open + tex + close, formula: true, display });
    formulas += 1;
    from = TEX_OPENING.lastIndex = end + close.length;
  }
  if (from < text.length) out.push(words(text.slice(from)));
  return out;
}
