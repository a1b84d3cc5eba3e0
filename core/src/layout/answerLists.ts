import type { Run } from '../document/block.ts';
import { sliceRuns, trimRuns } from '../document/runs.ts';
import { COUNTING_LETTERS, digitsValue } from '../document/counters.ts';
import { nameAt, namesIn } from './fields.ts';
import { labelsOf } from './labels.ts';
import type { Line } from './lines.ts';
import type { RawItem } from './raw.ts';
import { truthOf } from './words.ts';

/** Keys that stand together, at the end of a chapter, of the document, or in a file of their own: `1. b  2. d  3. a`. */

export interface Entry {
  readonly number: number;
  readonly value: string;
  readonly runs: readonly Run[];
  readonly line: Line;
}
export interface AnswerList {
  readonly entries: readonly Entry[];
  /** The short line above it; '' where there is none. */
  readonly heading: string;
}

const LETTER = `[${COUNTING_LETTERS}]`;
const LETTERS = `[(\\[]?(?:${LETTER}(?:\\s?[,&/+]\\s?${LETTER})*|[A-H]{2,5})[)\\]]?`;
const PAIR = new RegExp(
  `[\\s,;|]*[(\\[]?(\\p{Nd}{1,4})[)\\]]?\\s?[.):：=–—-]?\\s*(${LETTERS}|\\p{L}{3,12})(?=[\\s,;|.]|$)\\.?`,
  'uy',
);
/** A value that can only be a key: letters, or true or false. */
const STRICT = new RegExp(`^(?:${LETTERS})[.)]?$`, 'u');
/** A letter, and words about it. */
const EXPLAINED = new RegExp(`^[(\\[]?(${LETTER})[)\\].:]+\\s+\\S|^(${LETTER})\\s+[–—-]\\s+\\S`, 'u');
/** Fewer are no list. */
const FEWEST = 3;

const isStrict = (value: string): boolean => STRICT.test(value.trim()) || truthOf(value) !== null;

interface Read {
  readonly entries: readonly Entry[];
  readonly strict: boolean;
}

/** What a line says as a part of such a list; null where it can be none. */
function entriesOf(line: Line, fields: ReadonlyMap<string, number>): Read | null {
  if (line.table || line.text === '' || line.heading > 0) return null;
  const numbered = line.labels.find((l) => l.kind === '1');
  if (numbered) {
    const cut = line.automatic ? 0 : numbered.length;
    const several = line.automatic ? null : pairsOf(line);
    if (several && several.length > 1) return { entries: several, strict: true };
    const runs = trimRuns(sliceRuns(line.runs, cut));
    const value = line.text.slice(cut).trim();
    if (value === '') return null;
    const [inner] = labelsOf(value).filter((l) => l.kind === 'b' || l.ordinal === 2);
    const explained = EXPLAINED.test(value) && !inner;
    return {
      entries: [{ number: numbered.ordinal, value, runs, line }],
      strict: isStrict(value) || explained,
    };
  }
  // "a. 1852 m" is a choice.
  if (line.labels.some((l) => l.ordinal > 0)) return null;
  // "Answers: 1. b  2. c" as well.
  const name = nameAt(line.text);
  if (name !== null && (fields.get(name) ?? 0) > 1) return null;
  const named = name === null ? 0 : line.text.search(/[:：=]/u) + 1;
  const pairs = pairsOf(line, named);
  return pairs && pairs.length > 0 ? { entries: pairs, strict: true } : null;
}

/** `1 b, 2 c, 3 a` in one line; null where anything else stands in it. */
function pairsOf(line: Line, start = 0): Entry[] | null {
  const out: Entry[] = [];
  let at = start;
  while (at < line.text.length) {
    PAIR.lastIndex = at;
    const found = PAIR.exec(line.text);
    if (!found && line.text.slice(at).trim() !== '') return null;
    if (!found) break;
    const value = found[2]!.trim();
    const from = found.index + found[0].lastIndexOf(found[2]!);
    out.push({
      number: digitsValue(found[1]!) ?? 0,
      value,
      runs: sliceRuns(line.runs, from, from + value.length),
      line,
    });
    at = PAIR.lastIndex;
  }
  // Among letters a word may be an answer too; words alone are a sentence.
  const strict = out.filter((e) => isStrict(e.value)).length;
  return out.length > 0 && strict * 2 >= out.length ? out : null;
}

/**
 * The lists of answers of a document, and the lines that are left.
 * @param loose whether short answers make a list too, as in a file that holds nothing else
 */
export function takeAnswerLists(
  lines: readonly Line[],
  loose = false,
  said: (line: Line) => boolean = () => false,
): { lists: AnswerList[]; rest: Line[]; taken: Line[] } {
  const fields = namesIn(lines);
  const read = lines.map((l) => (said(l) ? null : entriesOf(l, fields)));
  const taken = new Set<number>();
  const lists: AnswerList[] = [];
  let at = 0;
  while (at < lines.length) {
    const grid = gridAt(lines, at);
    if (grid) {
      takeHeading(lines, at, taken);
      taken.add(at).add(at + 1);
      lists.push({ entries: grid, heading: '' });
      at += 2;
      continue;
    }
    const end = stretchFrom(read, at, loose);
    if (end === null) {
      at += 1;
      continue;
    }
    let from = at;
    // Answers in words go before and after those by letters, as long as the numbers go on.
    while (
      from > 0 &&
      !taken.has(from - 1) &&
      goesBefore(read[from - 1] ?? null, read[from]!) &&
      !hasChoices(lines, from - 1)
    )
      from -= 1;
    const heading = takeHeading(lines, from, taken);
    for (let n = from; n < end; n++) taken.add(n);
    lists.push(
      ...byReset(
        read.slice(from, end).flatMap((r) => r?.entries ?? []),
        heading,
      ),
    );
    at = end;
  }
  const [rest, gone] = [[] as Line[], [] as Line[]];
  for (const line of lines)
    if (taken.has(line.at) && !said(line)) gone.push(line);
    else rest.push({ ...line, at: rest.length });
  return { lists, rest, taken: gone };
}

/** The short lines above a list: they are part of it. */
function takeHeading(lines: readonly Line[], from: number, taken: Set<number>): string {
  let heading = '';
  for (let n = 1; n <= 2; n++) {
    const above = lines[from - n];
    if (!above || taken.has(from - n) || !isHeading(above)) break;
    heading = heading || above.text;
    taken.add(from - n);
  }
  return heading;
}

/** Numbers in one line, and what answers them in the next: a table that lost its rules. */
function gridAt(lines: readonly Line[], at: number): Entry[] | null {
  const [above, below] = [lines[at], lines[at + 1]];
  if (!above || !below || above.table || below.table || !/^\p{Nd}{1,4}[.)]?\s/u.test(above.text)) return null;
  const numbers = above.text.split(/\s+/u).map((n) => digitsValue(n.replace(/[.)]$/u, '')));
  if (numbers.length < FEWEST || numbers.some((n, k) => n === null || n !== numbers[0]! + k)) return null;
  const values = [...below.text.matchAll(/\S+/gu)];
  if (values.length !== numbers.length || values.some(([v]) => !isStrict(v))) return null;
  return values.map((v, k) => ({
    number: numbers[k]!,
    value: v[0],
    runs: sliceRuns(below.runs, v.index, v.index + v[0].length),
    line: below,
  }));
}

/** Where a list ends that begins at a line; null where none begins. */
function stretchFrom(read: readonly (Read | null)[], from: number, loose: boolean): number | null {
  if (!read[from] || !(read[from].strict || loose)) return null;
  let end = from;
  let count = 0;
  let strict = 0;
  let last = 0;
  let misses = 0;
  while (end < read.length) {
    const here = read[end];
    const first = here?.entries[0];
    if (!here || !first || (!here.strict && first.number !== last + 1)) break;
    if (here.strict) {
      strict += here.entries.length;
      misses = 0;
    } else misses += here.entries.length;
    if (misses > 8 && !loose) break;
    if (first.number <= last && first.number !== 1) break;
    last = here.entries.at(-1)!.number;
    count += here.entries.length;
    end += 1;
  }
  return (strict >= FEWEST || (loose && count >= FEWEST)) && (loose || strict * 3 >= count) ? end : null;
}

const goesBefore = (before: Read | null, here: Read): boolean =>
  before !== null && before.entries.at(-1)!.number + 1 === here.entries[0]!.number;

/** Whether the line after one is a choice: then it is a question. */
const hasChoices = (lines: readonly Line[], at: number): boolean =>
  lines[at + 1]?.labels.some((l) => l.ordinal === 1 && l.kind !== '1') ?? false;

const HEADING_LENGTH = 70;
const isHeading = (line: Line): boolean =>
  !line.table &&
  line.text.length <= HEADING_LENGTH &&
  (line.heading > 0 || line.labels.every((l) => l.shape.includes(' '))) &&
  !/[?.؟。]$/u.test(line.text) &&
  !line.text.includes('___');

function byReset(entries: readonly Entry[], heading: string): AnswerList[] {
  const lists: Entry[][] = [];
  for (const entry of entries) {
    const before = lists.at(-1)?.at(-1);
    if (before && entry.number > before.number) lists.at(-1)!.push(entry);
    else lists.push([entry]);
  }
  return lists.map((l, at) => ({ entries: l, heading: at === 0 ? heading : '' }));
}

/** Items by the run of numbers they stand in: each run begins anew. */
export function runsOf(items: readonly RawItem[]): RawItem[][] {
  const runs: RawItem[][] = [];
  let last = Infinity;
  for (const item of items) {
    const number = item.label?.ordinal ?? runs.at(-1)?.length ?? 0;
    if (runs.length === 0 || (item.label && number <= last)) runs.push([]);
    runs.at(-1)!.push(item);
    last = number;
  }
  return runs;
}

const numberOf = (item: RawItem, at: number): number => item.label?.ordinal || at + 1;

/**
 * The entry of each item: lists are paired with runs of items in their order where there are as many, else each
 * with the run that it fits best.
 */
export function entriesFor(
  runs: readonly (readonly RawItem[])[],
  lists: readonly AnswerList[],
): Map<RawItem, Entry> {
  const out = new Map<RawItem, Entry>();
  if (runs.length === 0) return out;
  const free = new Set(runs.keys());
  for (const [n, { entries }] of lists.entries()) {
    const numbers = new Map(entries.map((e) => [e.number, e]));
    const fit = (at: number): number => {
      const run = runs[at]!;
      const met = run.filter((i, k) => numbers.has(numberOf(i, k))).length;
      return met / Math.max(run.length, entries.length);
    };
    const inOrder = runs.length === lists.length ? n : -1;
    const best = inOrder >= 0 ? inOrder : [...free].sort((a, b) => fit(b) - fit(a) || a - b)[0];
    if (best === undefined || fit(best) === 0) continue;
    free.delete(best);
    for (const [k, item] of runs[best]!.entries()) {
      const entry = numbers.get(numberOf(item, k));
      if (entry) out.set(item, entry);
    }
  }
  return out;
}
