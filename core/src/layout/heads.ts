import { headingOf, type Heading } from './headings.ts';
import type { Line } from './lines.ts';
import { rangeIn } from './ranges.ts';
import type { RawItem, Segmented } from './raw.ts';

/** What stands between items: titles of chapters and parts, passages for several questions, and what nobody understands. */

export interface Passage {
  readonly from: number;
  readonly to: number;
  readonly lines: readonly Line[];
}
export interface Placed {
  readonly item: RawItem;
  /** Headings it stands under, the outermost first. */
  readonly path: readonly Heading[];
  readonly passage: Passage | null;
}
export interface Between {
  readonly placed: readonly Placed[];
  readonly headings: readonly Heading[];
  readonly loose: readonly Line[];
}

/** Sorts what stands between the items of a document. */
export function between({ items, after, headings: said }: Segmented): Between {
  const loose: Line[] = [];
  const headings: Heading[] = [];
  const placed: Placed[] = [];
  const forms: string[] = [];
  let path: Heading[] = [];
  let passage: Passage | null = null;
  for (const [at, item] of items.entries()) {
    const number = item.label?.ordinal ?? at + 1;
    const found = sort(item.before, number, at === 0 || number === 1, said);
    loose.push(...found.loose);
    for (const heading of found.headings) {
      headings.push(heading);
      path = under(path, heading, forms);
    }
    if (found.passage) passage = found.passage;
    else if (found.headings.length > 0 || (passage && (number > passage.to || number < passage.from)))
      passage = null;
    placed.push({ item, path, passage });
  }
  const last = sort(after, 0, false, said);
  return { placed, headings, loose: [...loose, ...last.loose, ...last.headings.map((h) => h.line)] };
}

/** A heading takes the place of those of its form and of all below it. */
function under(path: readonly Heading[], heading: Heading, forms: string[]): Heading[] {
  if (!forms.includes(heading.form)) forms.push(heading.form);
  const rank = (h: Heading): number => rankOf(h, forms);
  return [...path.filter((h) => rank(h) < rank(heading)), heading];
}
const rankOf = ({ form, namesKind }: Heading, forms: readonly string[]): number =>
  namesKind ? 1000 : /^h\d$/u.test(form) ? Number(form[1]) : 10 + forms.indexOf(form);

function sort(
  lines: readonly Line[],
  number: number,
  opens: boolean,
  said: ReadonlySet<Line>,
): { headings: Heading[]; passage: Passage | null; loose: Line[] } {
  const headings: Heading[] = [];
  const loose: Line[] = [];
  let passage: { from: number; to: number; lines: Line[] } | null = null;
  for (const [at, line] of lines.entries()) {
    const range = said.has(line) ? null : rangeIn(line.text, number);
    if (said.has(line)) {
      headings.push({ text: line.text.trim(), form: 'said', line, namesKind: false });
      passage = null;
    } else if (range) passage = { ...range, lines: [line] };
    else if (passage && line.heading === 0) passage.lines.push(line);
    else {
      const heading = headingOf(line, opens && at === 0 && headings.length === 0);
      if (heading) headings.push(heading);
      else loose.push(line);
    }
  }
  return { headings, passage, loose };
}
