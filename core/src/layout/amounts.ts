import type { Run } from '../document/block.ts';
import { sliceRuns, textOfRuns, trimRuns } from '../document/runs.ts';
import { digitsValue } from '../document/counters.ts';
import type { RawItem } from './raw.ts';
import { roleOfWord } from './words.ts';

/** Points as they are said in an item's text: `(2 points)`, `[2]`, `(1,5 P.)`. */

const NUMBER = '\\p{Nd}{1,3}(?:[.,٫]\\p{Nd}{1,3})?|½|¼|\\p{Nd}½';
const IN_BRACKETS = `([(\\[{（［])\\s*(${NUMBER})\\s*(?:[-–]\\s*)?(?:(\\p{L}[\\p{L}\\p{M}]{0,11}\\.?)\\s*)?[)\\]}）］]`;
const AT_END = new RegExp(`(?<!\\s)\\s*${IN_BRACKETS}\\s*[.:]?$`, 'u');
const AT_START = new RegExp(`^${IN_BRACKETS}\\s*`, 'u');
const WORD_FIRST = /^([([])\s*(\p{L}{2,10})\s*[:：]\s*(\p{Nd}{1,3}(?:[.,]\p{Nd}{1,3})?)\s*[)\]]/u;

/** A number of points; null where a text is none. `2`, `1,5`, `2 points`. */
export function readAmount(text: string): number | null {
  const found = new RegExp(`^(${NUMBER})(?:\\s*\\p{L}{1,12}\\.?)?$`, 'u').exec(text.trim());
  return found ? amountOf(found[1]!) : null;
}

function amountOf(text: string): number | null {
  if (text === '½') return 0.5;
  if (text === '¼') return 0.25;
  if (text.endsWith('½')) return (digitsValue(text.slice(0, -1)) ?? 0) + 0.5;
  const [whole = '', part = ''] = text.split(/[.,٫]/u);
  const [a, b] = [digitsValue(whole), part === '' ? 0 : digitsValue(part)];
  return a === null || b === null ? null : a + b / 10 ** [...part].length;
}

interface Amount {
  readonly value: number;
  /** `(1 points)`: its brackets, and the word where there is one. */
  readonly form: string;
  /** Where it stands in the text. */
  readonly from: number;
  readonly to: number;
}

/** No amount takes more characters. */
const LONGEST = 60;

/** What may be an amount of points at the end or the start of a text. */
function amountIn(text: string): Amount | null {
  const tail = Math.max(0, text.length - LONGEST);
  for (const [pattern, from] of [
    [AT_END, tail],
    [AT_START, 0],
  ] as const) {
    const found = pattern.exec(text.slice(from, from + LONGEST));
    if (!found) continue;
    const [whole, open = '', digits = '', word = ''] = found;
    const value = amountOf(digits);
    if (value === null) continue;
    const at = from + found.index;
    return { value, form: formOf(open, word), from: at, to: at + whole.length };
  }
  const named = WORD_FIRST.exec(text);
  const value = named ? amountOf(named[3]!) : null;
  return named && value !== null
    ? { value, form: formOf(named[1]!, named[2]!), from: 0, to: named[0].length }
    : null;
}

/** The form of all that say points in words, whatever their brackets. */
const POINTS = 'points';
const SINGULAR = /(?:s|es|e|n)$/u;
const formOf = (open: string, word: string): string => {
  const folded = word.toLowerCase().replace(/\.$/u, '');
  return roleOfWord(folded) === 'points' ? POINTS : `${open}${folded.replace(SINGULAR, '')}`;
};

/**
 * The form in which points are said, learnt from all items: by a word for points, or by what recurs; null where
 * nothing is said.
 */
export function amountForm(items: readonly RawItem[]): string | null {
  const counts = new Map<string, { count: number; most: number }>();
  let stems = 0;
  for (const item of items) {
    stems += 1;
    for (const { form, value } of amountsOf(item)) {
      const had = counts.get(form) ?? { count: 0, most: 0 };
      counts.set(form, { count: had.count + 1, most: Math.max(had.most, value) });
    }
  }
  const ranked = [...counts].sort((a, b) => b[1].count - a[1].count);
  if (counts.has(POINTS)) return POINTS;
  const [best] = ranked;
  if (!best || stems < 3) return null;
  const [form, { count, most }] = best;
  const wanted = form.length > 1 ? 0.4 : form === '[' ? 0.5 : 0.8;
  return count / stems >= wanted && most <= 30 ? form : null;
}

/** Every form in which points may be said here, the most frequent first. */
export function amountForms(items: readonly RawItem[]): string[] {
  const counts = new Map<string, number>();
  for (const { form } of items.flatMap(amountsOf)) counts.set(form, (counts.get(form) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1]).map(([form]) => form);
}

const amountsOf = (item: RawItem): Amount[] =>
  item.stem.flatMap((p) => {
    const found = amountIn(textOfRuns(p.runs));
    return found ? [found] : [];
  });

/** Runs without the amount of this form, and the amount. */
export function takeAmount(runs: readonly Run[], form: string | null): { runs: Run[]; value: number | null } {
  const text = textOfRuns(runs);
  const found = form === null || !/[)\]}）］]/u.test(text) ? null : amountIn(text);
  if (!found || found.form !== form) return { runs: [...runs], value: null };
  const left = [...sliceRuns(runs, 0, found.from), ...sliceRuns(runs, found.to)];
  return { runs: trimRuns(left), value: found.value };
}

/** `(2 points each)` of a heading: the value, and whether it is said to be of each; null where nothing is said. */
export function amountInHeading(text: string): { value: number } | null {
  for (const found of text.matchAll(new RegExp(`(${NUMBER})\\s*(?:[-–]\\s*)?(\\p{L}+)`, 'gu'))) {
    if (roleOfWord(found[2]!.toLowerCase()) !== 'points') continue;
    const value = amountOf(found[1]!);
    if (value !== null) return { value };
  }
  return null;
}
