import { child, descendants, elements, type XmlElement } from '../../xml/tree.ts';
import type { Look } from '../block.ts';
import { readCounter } from '../counters.ts';
import { attr } from '../parts.ts';
import type { LevelFormat } from '../numbering.ts';

/** Styles of an OpenDocument text (ODF 1.3 part 3, 16): what a paragraph or a run gets from elsewhere. */

export interface OdtStyles {
  readonly look: (name: string | null) => Partial<Look>;
  readonly list: (name: string | null) => readonly LevelFormat[] | null;
  /** The list style of a paragraph style, and its outline level; 0: none. */
  readonly paragraph: (name: string | null) => { readonly list: string | null; readonly outline: number };
}

export function readOdtStyles(roots: readonly (XmlElement | null)[]): OdtStyles {
  const styles = new Map<string, XmlElement>();
  const lists = new Map<string, readonly LevelFormat[]>();
  for (const root of roots) {
    if (!root) continue;
    for (const style of descendants(root, 'style')) styles.set(attr(style, 'name') ?? '', style);
    for (const style of descendants(root, 'list-style'))
      lists.set(attr(style, 'name') ?? '', levelsOf(style));
  }
  const cache = new Map<string, Partial<Look>>();
  const look = (name: string | null, depth = 0): Partial<Look> => {
    const style = name === null ? undefined : styles.get(name);
    if (!style || depth > 20) return {};
    const had = cache.get(name!);
    if (had) return had;
    const made = {
      ...look(attr(style, 'parent-style-name'), depth + 1),
      ...lookIn(child(style, 'text-properties')),
    };
    cache.set(name!, made);
    return made;
  };
  const paragraph = (name: string | null, depth = 0): { list: string | null; outline: number } => {
    const style = name === null ? undefined : styles.get(name);
    if (!style || depth > 20) return { list: null, outline: 0 };
    const below = paragraph(attr(style, 'parent-style-name'), depth + 1);
    const titled = /^title$/iu.test(attr(style, 'display-name') ?? attr(style, 'name') ?? '')
      ? 1
      : below.outline;
    return {
      list: attr(style, 'list-style-name') || below.list,
      outline: Number(attr(style, 'default-outline-level')) || titled,
    };
  };
  return {
    look: (name) => look(name),
    list: (name) => (name === null ? null : (lists.get(name) ?? null)),
    paragraph: (name) => paragraph(name),
  };
}

function lookIn(properties: XmlElement | null): Partial<Look> {
  if (!properties) return {};
  const out: { -readonly [K in keyof Look]?: Look[K] } = {};
  const weight = attr(properties, 'font-weight');
  if (weight !== null) out.bold = weight === 'bold' || Number(weight) >= 600;
  const style = attr(properties, 'font-style');
  if (style !== null) out.italic = style === 'italic' || style === 'oblique';
  const under = attr(properties, 'text-underline-style');
  if (under !== null) out.underline = under !== 'none';
  const through = attr(properties, 'text-line-through-style');
  if (through !== null) out.strike = through !== 'none';
  const back = attr(properties, 'background-color');
  if (back !== null) out.highlight = /^(?:transparent|#ffffff)$/iu.test(back) ? null : back;
  const colour = attr(properties, 'color');
  if (colour !== null) out.color = /^#0{6}$/u.test(colour) ? null : colour;
  const position = attr(properties, 'text-position');
  if (position !== null)
    out.script = /^(?:sub|-)/u.test(position) ? 'sub' : /^0%/u.test(position) ? null : 'sup';
  return out;
}

/** ODF 1.3, 20.367 style:num-format. */
const FORMATS: Readonly<Record<string, string>> = {
  '1': 'decimal',
  a: 'lowerLetter',
  A: 'upperLetter',
  i: 'lowerRoman',
  I: 'upperRoman',
  '': 'none',
};

/** Other scripts are written as how they begin, "ا, ب, ج, ...". */
function formatOf(said: string): string {
  const known = FORMATS[said];
  if (known) return known;
  const [first = ''] = said.split(',');
  const kind = readCounter(first.trim()).find((c) => c.ordinal === 1)?.kind;
  return kind && kind !== '1' ? `kind ${kind}` : 'decimal';
}

function levelsOf(style: XmlElement): LevelFormat[] {
  const out: LevelFormat[] = [];
  for (const level of elements(style)) {
    const at = (Number(attr(level, 'level')) || 1) - 1;
    if (level.name === 'list-level-style-bullet')
      out[at] = { format: 'bullet', text: attr(level, 'bullet-char') ?? '•', start: 1 };
    else if (level.name === 'list-level-style-number') {
      const shown = Math.min(at + 1, Number(attr(level, 'display-levels')) || 1);
      const numbers = Array.from({ length: shown }, (_, n) => `%${at - shown + n + 2}`).join('.');
      const written = attr(level, 'num-list-format');
      const format = formatOf(attr(level, 'num-format') ?? '');
      out[at] = {
        format,
        // The newer attribute says it whole, "%1%.".
        text: written
          ? written.replace(/%(\d)%/gu, '%$1')
          : `${attr(level, 'num-prefix') ?? ''}${numbers}${attr(level, 'num-suffix') ?? ''}`,
        start: Number(attr(level, 'start-value') ?? '1') || 1,
      };
    }
  }
  return out;
}
