import { PLAIN_LOOK, type Look, type Run } from '../document/block.ts';
import { restyled, shareOf, sliceRuns, textOfRuns, trimRuns } from '../document/runs.ts';
import type { RawChoice, RawItem } from './raw.ts';
import { CORRECT_WORDS } from './words.ts';

/** Marks in place: how a choice is shown to be the right one. */

const LOOKS: Readonly<Record<string, (look: Look) => boolean>> = {
  bold: (l) => l.bold,
  italic: (l) => l.italic,
  underline: (l) => l.underline,
  strike: (l) => l.strike,
  highlight: (l) => l.highlight !== null,
  colour: (l) => l.color !== null,
};
/** So much of a choice has to look that way: a word that is stressed is no mark. */
const WHOLE = 0.85;

const LEADING_SIGN = /^([*✓✔√☑+#→►>]|=>)\s*(?=\S)/u;
const TRAILING_SIGN = /(?<!\s)\s*([*✓✔√☑←]|<-+)$/u;
const TRAILING_WORD =
  /\s{0,8}[([{<–—-]{1,4}\s{0,8}([^()[\]{}<>]{1,24}?)\s{0,8}[)\]}>]$|\s{1,8}(?:<-{1,4}|←)\s{0,8}(\S{1,20})$/u;

const textOf = ({ parts }: RawChoice): string =>
  parts
    .map((p) => textOfRuns(p.runs))
    .join(' ')
    .trim();

/** So many characters at a choice's end may hold a mark; more is never looked at, however long it is. */
const TAIL = 80;

/** What stands in brackets behind a choice, folded; null where nothing does. */
function wordBehind(choice: RawChoice): string | null {
  const found = TRAILING_WORD.exec(textOf(choice).slice(-TAIL));
  return found ? (found[1] ?? found[2]!).toLowerCase().trim() : null;
}

const isDressed = (run: Run): boolean =>
  run.kind === 'text' && Object.values(LOOKS).some((looks) => looks(run.look));

/** The marks of a choice by name; words as `word correct`. */
export function marksOf(choice: RawChoice): Set<string> {
  const marks = new Set<string>();
  const runs = choice.parts.flatMap((p) => p.runs);
  if (runs.some(isDressed))
    for (const [name, looks] of Object.entries(LOOKS)) if (shareOf(runs, looks) >= WHOLE) marks.add(name);
  const text = textOf(choice);
  if (choice.sign !== '' || LEADING_SIGN.test(text) || TRAILING_SIGN.test(text.slice(-TAIL)))
    marks.add('sign');
  const word = wordBehind(choice);
  if (word !== null) marks.add(`word ${word}`);
  return marks;
}

/** Which choices bear a mark, item by item, for every mark that is met. */
export function marksIn(items: readonly RawItem[]): Map<string, Map<RawItem, number[]>> {
  const found = new Map<string, Map<RawItem, number[]>>();
  for (const item of items) {
    if (item.choices.length < 2) continue;
    for (const [at, choice] of item.choices.entries())
      for (const mark of marksOf(choice)) {
        const byItem = found.get(mark) ?? new Map<RawItem, number[]>();
        byItem.set(item, [...(byItem.get(item) ?? []), at]);
        found.set(mark, byItem);
      }
  }
  // One word in brackets is a mark only where it says so, or where it is met again.
  for (const [mark, byItem] of found)
    if (mark.startsWith('word ') && byItem.size < 2 && !CORRECT_WORDS.has(mark.slice(5))) found.delete(mark);
  return found;
}

/** A choice's runs without the mark that gives it away. */
export function withoutMark(runs: readonly Run[], mark: string | null): Run[] {
  if (mark === null) return trimRuns(runs);
  const looks = LOOKS[mark];
  if (looks) return trimRuns(restyled(runs, (look) => (looks(look) ? { ...look, ...without(mark) } : look)));
  const text = textOfRuns(runs);
  if (mark === 'sign') {
    const from = LEADING_SIGN.exec(text)?.[0].length ?? 0;
    const to = text.length - (TRAILING_SIGN.exec(text.slice(-TAIL))?.[0].length ?? 0);
    return trimRuns(sliceRuns(runs, from, Math.max(from, to)));
  }
  const tail = Math.max(0, text.length - TAIL);
  const word = TRAILING_WORD.exec(text.slice(tail));
  return word && `word ${(word[1] ?? word[2]!).toLowerCase().trim()}` === mark
    ? trimRuns(sliceRuns(runs, 0, tail + word.index))
    : trimRuns(runs);
}

const without = (mark: string): Partial<Look> =>
  mark === 'colour' ? { color: null } : { [mark]: PLAIN_LOOK[mark as keyof Look] };
