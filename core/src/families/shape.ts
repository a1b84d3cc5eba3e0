import type { Interaction } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { parseNumber } from '../model/number.ts';
import { choicesOf } from '../model/options.ts';
import { bodyText, optionText, plain } from '../model/plainText.ts';
import { interactionsOf } from '../model/visit.ts';
import { seedOf } from '../scoring/seedOf.ts';

/** An item seen as one of several that a script may have made: what stays, and what is drawn anew. */
export interface Shape {
  readonly item: Item;
  /** Items of one family have the same: the text with its numbers and names taken out, kinds, number of choices. */
  readonly key: string;
  /** The text word by word; a run of numbers is one word. */
  readonly tokens: readonly string[];
  /** Numbers of text and formulas in their order, by run; as text where nobody can say which number it is. */
  readonly numbers: readonly (readonly (number | string)[])[];
  /** Capitalised words by their place among the tokens. */
  readonly names: readonly (readonly [place: number, word: string])[];
  readonly choices: readonly string[];
  readonly masked: readonly string[];
}

const TOKEN =
  /[-+\u2212]?\p{Nd}+(?:[.,]\p{Nd}+)*(?:[eE][-+]?\p{Nd}+)?|\p{L}[\p{L}\p{M}\p{N}'’_]*|[^\s\p{L}\p{Nd}]/gu;
const NUMBER = /^[-+\u2212]?\p{Nd}/u;
const CAPITAL = /^\p{Lu}/u;
/** What follows a name in English: it changes with it. */
const PRONOUN = /^(?:he|she|him|her|his|hers)$/iu;

/** The number that stands for a run of numbers, and the word that stands for a name. */
const RUN = '#';
const NAME = '@';

const numberOf = (token: string): number | string => parseNumber(token.replace('\u2212', '-')) ?? token;

/** Words of a text, runs of numbers taken together: lists of another length are still lists. */
function tokensOf(text: string): { tokens: string[]; numbers: (number | string)[][] } {
  const tokens: string[] = [];
  const numbers: (number | string)[][] = [];
  let run: (number | string)[] | null = null;
  let comma: string | null = null;
  for (const [token] of text.matchAll(TOKEN)) {
    if (NUMBER.test(token)) {
      if (run) run.push(numberOf(token));
      else {
        run = [numberOf(token)];
        numbers.push(run);
        tokens.push(RUN);
      }
      comma = null;
      continue;
    }
    if (run && comma === null && (token === ',' || token === ';')) {
      comma = token;
      continue;
    }
    if (comma !== null) tokens.push(comma);
    run = null;
    comma = null;
    tokens.push(token);
  }
  if (comma !== null) tokens.push(comma);
  return { tokens, numbers };
}

/** A text with its numbers taken out. */
export const withoutNumbers = (text: string): string => tokensOf(text).tokens.join(' ');

const calledName = (token: string): boolean => CAPITAL.test(token) || PRONOUN.test(token);

/** All that is read of an item but its choices. */
export const textOf = (item: Item): string =>
  [...item.stimuli.map((s) => plain(s.content)), bodyText(item)].join(' \n ');

const LETTER = /\p{L}/u;
const isLetter = (code: number): boolean =>
  (code >= 97 && code <= 122) ||
  (code >= 65 && code <= 90) ||
  (code >= 128 && LETTER.test(String.fromCharCode(code)));
const isCapital = (code: number): boolean =>
  (code >= 65 && code <= 90) || (code >= 128 && CAPITAL.test(String.fromCharCode(code)));

/**
 * A number that texts of one key share, found in a fraction of the time: only where several items have it, they are
 * taken apart word by word. It is of the small letters of words that are no names.
 */
export function roughKey(text: string): number {
  let sum = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) {
    if (!isLetter(text.charCodeAt(at))) continue;
    const from = at;
    while (at < text.length && isLetter(text.charCodeAt(at))) at += 1;
    if (isCapital(text.charCodeAt(from))) {
      // What follows a name without a blank belongs to it: "R2D2", "O’Hara".
      while (at < text.length && /[\p{L}\p{M}\p{N}'’_]/u.test(text[at]!)) at += 1;
      continue;
    }
    if (at - from <= 4 && PRONOUN.test(text.slice(from, at))) continue;
    for (let k = from; k < at; k++) sum = Math.imul(sum ^ text.charCodeAt(k), 0x01000193);
  }
  return sum >>> 0;
}

/** Null where an item says nothing by which it could be known again. */
export function shapeOf(item: Item, text = textOf(item)): Shape | null {
  const { tokens, numbers } = tokensOf(text);
  if (!tokens.some((t) => t !== RUN && /[\p{L}\p{S}]/u.test(t))) return null;
  const names: [number, string][] = [];
  const masked = tokens.map((t, at) => {
    if (!calledName(t)) return t;
    names.push([at, t]);
    return NAME;
  });
  const interactions = interactionsOf(item);
  const key = `${masked.join(' ')}\u0001${interactions.map((i) => `${i.kind} ${countOf(i)}`).join()}`;
  const options = once(() => choicesOf(item).map(optionText));
  const without = once(() => options().map(withoutNumbers));
  return {
    item,
    key,
    tokens,
    numbers,
    names,
    get choices() {
      return options();
    },
    get masked() {
      return without();
    },
  };
}

/** How many there are to choose from. */
const countOf = (interaction: Interaction): number =>
  'choices' in interaction ? interaction.choices.length : 'left' in interaction ? interaction.left.length : 0;

/** Most items are no replicas, and are never asked for their choices. */
function once<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}

/** A short name for a family that is the same on the other side. */
export const shapeId = (shape: Shape): string => `family-${seedOf(shape.key).toString(36)}`;
