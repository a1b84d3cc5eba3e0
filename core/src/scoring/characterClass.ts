/** Classes of characters of XML Schema's regular expressions, in the syntax of RE2. */

/** From one code point to another, both within. */
type Range = readonly [number, number];
/** A class that has a name, as RE2 writes it in brackets. */
export interface Named {
  readonly members: string;
  readonly negated: boolean;
}
export type Part = Range | Named;
export interface CharacterClass {
  readonly parts: readonly Part[];
  readonly negated: boolean;
  /** What it does not take though its parts do. */
  readonly without: CharacterClass | null;
}
const isNamed = (part: Part): part is Named => 'members' in part;

export const bracketed = (members: string, negated: boolean): string => `[${negated ? '^' : ''}${members}]`;
const hex = (code: number): string => `\\x{${code.toString(16)}}`;
const writtenRange = ([from, to]: Range): string => (from === to ? hex(from) : `${hex(from)}-${hex(to)}`);

/** RE2 knows no class of all others within a class, and none that takes another away: these are worked out. */
export function writtenClass(of: CharacterClass): string {
  const direct = of.without === null && of.parts.every((p) => !isNamed(p) || !p.negated);
  if (direct)
    return bracketed(of.parts.map((p) => (isNamed(p) ? p.members : writtenRange(p))).join(''), of.negated);
  const ranges = rangesOf(of);
  return ranges.length > 0 ? bracketed(ranges.map(writtenRange).join(''), false) : '[^\\x{0}-\\x{10FFFF}]';
}

const LAST_CHARACTER = 0x10ffff;

function rangesOf({ parts, negated, without }: CharacterClass): Range[] {
  const all = tidy(parts.flatMap((p) => (isNamed(p) ? rangesNamed(p) : [p])));
  const own = negated ? others(all) : all;
  if (!without) return own;
  const gone = rangesOf(without);
  return others(tidy([...others(own), ...gone]));
}

/** In order, those that touch as one. */
function tidy(ranges: readonly Range[]): Range[] {
  const out: [number, number][] = [];
  for (const [from, to] of [...ranges].sort((a, b) => a[0] - b[0])) {
    const last = out.at(-1);
    if (last && from <= last[1] + 1) last[1] = Math.max(last[1], to);
    else out.push([from, to]);
  }
  return out;
}

/** Everything that lies outside of ranges in order. */
function others(ranges: readonly Range[]): Range[] {
  const out: Range[] = [];
  let next = 0;
  for (const [from, to] of ranges) {
    if (from > next) out.push([next, from - 1]);
    next = to + 1;
  }
  if (next <= LAST_CHARACTER) out.push([next, LAST_CHARACTER]);
  return out;
}

const named = new Map<string, Range[]>();

/** The characters of a named class, as the script engine's own tables have them; each is looked up once. */
function rangesNamed({ members, negated }: Named): readonly Range[] {
  let ranges = named.get(members);
  if (!ranges) {
    const one = new RegExp(`[${members.replaceAll('\\x{', '\\u{')}]`, 'u');
    const found: Range[] = [];
    let from = -1;
    for (let code = 0; code <= LAST_CHARACTER + 1; code++) {
      const takes = code <= LAST_CHARACTER && one.test(String.fromCodePoint(code));
      if (takes && from < 0) from = code;
      if (takes || from < 0) continue;
      found.push([from, code - 1]);
      from = -1;
    }
    ranges = found;
    named.set(members, ranges);
  }
  return negated ? others(ranges) : ranges;
}
