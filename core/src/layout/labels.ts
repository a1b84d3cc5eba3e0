import { COUNTING_LETTERS, counterText, isBullet, readCounter } from '../document/counters.ts';
import { isQuestionWord } from './words.ts';

/** A label at the start of a line, as one may mean it: `12.`, `b)`, `(c)`, `Question 7:`, `•`. */
export interface Label {
  /** The label with its counter by kind: `1.`, `a)`, `(A)`, `Question 1:`, `•`. */
  readonly shape: string;
  readonly kind: string;
  /** From 1; 0 where nothing is counted. */
  readonly ordinal: number;
  /** Characters it takes, white space behind it too. */
  readonly length: number;
}

const COUNTER = `\\p{Nd}{1,4}|[ivxlIVXL]{1,6}|[${COUNTING_LETTERS}Ａ-Ｚａ-ｚ]`;
const CLOSING = '\\.[)-]|[.)\\]:、．）。：]';
// A star before a label marks the choice; it is no part of the label.
const PREFIX = '(\\p{L}[\\p{L}\\p{M}]{1,14}\\.?|[Qq]\\.?|[#№問题題第문])';
const LABELLED = new RegExp(
  `^(?:${PREFIX}[ \\u00A0]?(?=\\p{Nd}))?([([（]?)[ ]?(${COUNTER})[ ]?(${CLOSING})?[ ]?(?=(\\s+|$)|.)`,
  'u',
);
const DASHED = /^(\p{Nd}{1,4})([ ]?[–—-])[ ]+/u;

/** A box to tick, and one that is ticked. */
export const BOX_SHAPE = '[]';
const BOX = /^(?:[[(][ \u00A0]?([xX✓✔*•])?[ \u00A0]?[\])]|[☐☑☒])\s+/u;
export const isTicked = (text: string): boolean => /^[[(][ \u00A0]?[xX✓✔*•]|^[☑☒]/u.test(text);

/**
 * The labels a text may begin with, the likeliest reading first; none where it begins with a word.
 * @param sure whether it is known to be a label: automatic numbering, a cell of its own
 */
export function labelsOf(text: string, sure = false): Label[] {
  const first = text[0] ?? '';
  if (isBullet(first)) {
    const [, space = ''] = /^.(\s*)/u.exec(text)!;
    // "-5" and "*a." are no list.
    if (space === '' && text.length > 1 && /[-–—*·]/u.test(first)) return [];
    return [{ shape: first, kind: first, ordinal: 0, length: 1 + space.length }];
  }
  const box = BOX.exec(text);
  if (box)
    return [
      { shape: BOX_SHAPE, kind: BOX_SHAPE, ordinal: 0, length: box[0].length },
      ...lettered(text, sure),
    ];
  const dashed = DASHED.exec(text);
  if (dashed) return counted('', '', dashed[1]!, dashed[2]!.trim(), dashed[0].length);
  const found = lettered(text, sure);
  return found.length > 0 ? found : named(text);
}

function lettered(text: string, sure: boolean): Label[] {
  const found = LABELLED.exec(text);
  if (!found) return [];
  const [whole, prefix = '', open = '', counter = '', closing = ''] = found;
  const space = found[5] ?? '';
  const length = whole.length + (/\s$/u.test(whole) ? 0 : space.length);
  const ended = length >= text.length || space !== '' || /\s$/u.test(whole);
  const circled = /[①-⑳ⓐ-ⓗ]/u.test(counter);
  if (open !== '' && closing === '') return [];
  if (open === '' && closing === '' && !circled && prefix === '' && !sure) {
    // A bare counter is a label only where a wide gap sets it apart.
    if (!/^(?:\t| {2,})/u.test(text.slice(whole.trimEnd().length))) return [];
  }
  if (prefix !== '' && closing === '' && !ended) return [];
  // "1.5 metres" is a number, "e.g." a word; "1.What" was typed in haste.
  const hasty = /^\p{Nd}/u.test(counter) && /^\p{L}/u.test(text.slice(whole.length));
  if (!ended && closing !== '' && !/[)\]）、．。]/u.test(closing) && !circled && !hasty) return [];
  if (!ended && closing === '' && !circled && !sure) return [];
  return counted(prefix, open, counter, closing, length);
}

/** "Question:" without a number, where the word is one for a question. */
function named(text: string): Label[] {
  const found = NAMED.exec(text);
  if (!found || !isQuestionWord(found[1]!)) return [];
  const shape = `${found[1]!}${found[2]!}`;
  return [{ shape, kind: shape, ordinal: 0, length: found[0].length }];
}
const NAMED = /^(\p{L}[\p{L}\p{M}]{0,14})[ \u00A0]?([:：.])\s*(?=\S)/u;

function counted(prefix: string, open: string, counter: string, closing: string, length: number): Label[] {
  return readCounter(counter).map(({ kind, ordinal }) => ({
    shape: `${prefix}${prefix === '' ? '' : ' '}${open}${kind}${closing}`,
    kind,
    ordinal,
    length,
  }));
}

/** Whether a shape counts with digits: what questions are labelled by, as a rule. */
export const isNumbered = (shape: string): boolean => /1/u.test(shape);

const KIND = /[1aAiIа-яА-ЯαΑأاאアｱあㄱ가甲①ⓐ一](?=[^\p{L}\p{Nd}]{0,20}$)/u;

/** A label of a shape as it is written: `(c)` for `(a)` at 3. */
export const labelText = (shape: string, ordinal: number): string =>
  shape.replace(KIND, (kind) => counterText(kind, ordinal));

/** Whether a shape is a word alone, "Question:". */
export const isNamed = (shape: string): boolean => /^\p{L}{1,15}[:：.]$/u.test(shape) && shape.length > 2;

/** Whether a text can be the shape of a label at all: columns of tables go by names that are none. */
export const isShape = (text: string): boolean =>
  isNamed(text) || isBullet(text[0] ?? '') || text.includes('[]') || KIND.test(text);

/** What a shape counts by; '' for a bullet, or a word alone. */
export const kindOf = (shape: string): string => (isNamed(shape) ? '' : (KIND.exec(shape)?.[0] ?? ''));
