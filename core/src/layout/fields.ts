import type { Line } from './lines.ts';

/** Lines after an item that say something of it under a name: `Answer: b`, `Points: 2   Difficulty: easy`. */

export interface Field {
  /** As it was met first. */
  readonly name: string;
  /** Where its value stands in the line's text. */
  readonly from: number;
  readonly to: number;
}

const NAME = `[\\p{L}][\\p{L}\\p{M}\\p{Nd}'’./()-]{0,23}(?:[ \\u00A0][\\p{L}\\p{Nd}(][\\p{L}\\p{M}\\p{Nd}'’./()-]{0,23}){0,3}`;
const MARK = '[ \\u00A0]?[:：=][ \\t\\u00A0]*';
const OPENING = new RegExp(`^([\\[({<]?)(${NAME})${MARK}`, 'u');
const FURTHER = new RegExp(`(?<=[\\s;,|\\])}>])([\\[({<]?)(${NAME})${MARK}`, 'gu');

/** Most lines have none, and every line is asked under every hypothesis. */
const COLON = /[:：=]/u;

/** Names of fields are told apart without regard to case and spaces. */
export const foldField = (name: string): string =>
  name
    .normalize('NFC')
    .toLowerCase()
    .replace(/[\s\u00A0]+/gu, ' ')
    .replace(/\.$/u, '')
    .trim();

/** The name that a line begins with, folded; null where it begins with none. */
export function nameAt(text: string): string | null {
  if (!COLON.test(text)) return null;
  const found = OPENING.exec(text);
  return found ? foldField(found[2]!) : null;
}

/** A letter further on in its alphabet names no choice. */
const MOST_CHOICES = 10;

/** The names that lines begin with, and how often each does. */
export function namesIn(lines: readonly Line[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const { text, labels, automatic } of lines) {
    // "Question 3: ..." is a label; a letter that is never counted to is none.
    if (!automatic && labels.some((l) => l.ordinal <= MOST_CHOICES || l.kind === '1')) continue;
    const name = nameAt(text);
    if (name !== null) counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  return counts;
}

/** Without the signs that part it from the next; from the end, so that long runs of them cost nothing. */
function withoutEnd(text: string): string {
  let end = text.length;
  while (end > 0 && /[\s;,|]/u.test(text[end - 1]!)) end -= 1;
  return text.slice(0, end);
}

/** What a line was found to hold, by the names that were looked for: hypotheses share these. */
const found = new WeakMap<ReadonlySet<string>, WeakMap<Line, readonly Field[]>>();

/** The fields of a line, looked for once. @see fieldsOf */
export function fieldsOfLine(line: Line, known: ReadonlySet<string>): readonly Field[] {
  let lines = found.get(known);
  if (!lines) found.set(known, (lines = new WeakMap()));
  let fields = lines.get(line);
  if (!fields) lines.set(line, (fields = fieldsOf(line.text, known)));
  return fields;
}

/**
 * The fields of a line; none where it does not begin with a known one. Known ones inside it end the value before.
 * @param known names that are fields, folded
 */
export function fieldsOf(text: string, known: ReadonlySet<string>): Field[] {
  if (!COLON.test(text)) return [];
  const first = OPENING.exec(text);
  if (!first || !known.has(foldField(first[2]!))) return [];
  const starts = [{ name: first[2]!, at: 0, from: first[0].length, open: first[1]! }];
  for (const found of text.slice(first[0].length).matchAll(FURTHER)) {
    // Of several words before the colon, only the last ones may be the name.
    const words = found[2]!.split(/[ \u00A0]/u);
    for (let n = 0; n < words.length; n++) {
      const name = words.slice(n).join(' ');
      if (!known.has(foldField(name))) continue;
      const skipped = words.slice(0, n).join(' ').length + (n > 0 ? 1 : 0);
      const at = first[0].length + found.index + (n > 0 ? found[1]!.length + skipped : 0);
      starts.push({
        name,
        at,
        from: first[0].length + found.index + found[0].length,
        open: n > 0 ? '' : found[1]!,
      });
      break;
    }
  }
  return starts.map(({ name, from, open }, n) => {
    const end = starts[n + 1]?.at ?? text.length;
    const value = withoutEnd(text.slice(from, end));
    const closed = open !== '' && /[\])}>]$/u.test(value) ? value.slice(0, -1).trimEnd() : value;
    return { name, from, to: from + closed.length };
  });
}
