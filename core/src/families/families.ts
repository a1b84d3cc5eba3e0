import equal from 'fast-deep-equal';
import type { Holding, Item, Quiz } from '../model/holding.ts';
import { nameOf } from '../model/plainText.ts';
import { apart, exercisesDrawn } from './exercises.ts';
import { roughKey, shapeId, shapeOf, textOf, withoutNumbers, type Shape } from './shape.ts';

/** In what the items of a family differ. */
export type Varies = 'numbers' | 'names' | 'choices' | 'choice-order';

/** Items that are one exercise with other numbers, names or choices: replicas. */
export interface Family {
  readonly id: string;
  readonly title: string;
  /** In the order of their source; at least two. */
  readonly items: readonly Item[];
  readonly varies: readonly Varies[];
  readonly shapes: readonly Shape[];
}

/** Names alone tell two questions apart, unless there is much else that is the same. */
const WORDS_AROUND_NAMES = 12;
const WORDS_AROUND_NUMBERS = 8;
/** The largest share of words that are other names. */
const NAMED = 0.25;
/** Kinds of exercise under one text that are told apart; what comes after them is an exercise of its own. */
const MAX_CLASSES = 50;

type Searched = Pick<Holding, 'items' | 'quizzes'>;
const known = new WeakMap<readonly Item[], { quizzes: readonly Quiz[]; families: readonly Family[] }>();

/**
 * The families among items: replicas of one exercise as scripts make them, of the same text, kinds and number of
 * choices but for numbers, names, and choices drawn anew or in another order. Equal items alone are no family. Where
 * draws of one, or numbered titles, say which replicas belong together, they have the last word.
 * @param read what `textOf` gives, where it is known already
 */
export function familiesOf(
  { items, quizzes }: Searched,
  read: (item: Item) => string = textOf,
): readonly Family[] {
  const before = known.get(items);
  if (before?.quizzes === quizzes) return before.families;
  const families = search(items, quizzes, read);
  known.set(items, { quizzes, families });
  return families;
}

function search(items: readonly Item[], quizzes: readonly Quiz[], read: (item: Item) => string): Family[] {
  const groups = new Map<string, Shape[]>();
  const texts = items.map((item): Text => {
    const text = read(item);
    return { item, text, rough: roughKey(text) };
  });
  for (const { item, text } of alikeAtAll(texts)) {
    const shape = shapeOf(item, text);
    if (!shape) continue;
    const group = groups.get(shape.key);
    if (group) group.push(shape);
    else groups.set(shape.key, [shape]);
  }
  const titles = ownTitles(texts);
  const exercises = exercisesDrawn(quizzes);
  const families: Family[] = [];
  const ids = new Map<string, number>();
  for (const group of groups.values()) {
    if (group.length < 2) continue;
    for (const shapes of classesOf(group, titles).flatMap((c) => apart(c, exercises))) {
      const varies = variesOf(shapes);
      if (varies.length === 0) continue;
      const id = shapeId(shapes[0]!);
      const used = (ids.get(id) ?? 0) + 1;
      ids.set(id, used);
      families.push({
        id: used === 1 ? id : `${id}-${used}`,
        title: titleOf(shapes.map((s) => s.item)),
        items: shapes.map((s) => s.item),
        varies,
        shapes,
      });
    }
  }
  const at = new Map(items.map((item, n) => [item, n]));
  return families.sort((a, b) => at.get(a.items[0]!)! - at.get(b.items[0]!)!);
}

interface Text {
  readonly item: Item;
  readonly text: string;
  /** Texts of one key have the same. */
  readonly rough: number;
}

/** Texts that, roughly, several items have. */
function alikeAtAll(texts: readonly Text[]): Text[] {
  const counts = new Map<number, number>();
  for (const { rough } of texts) counts.set(rough, (counts.get(rough) ?? 0) + 1);
  return texts.filter(({ rough }) => counts.get(rough)! > 1);
}

/** Titles that, but for their numbers, only items of one text have: "ex 3, no. 1" and "ex 3, no. 2". */
function ownTitles(texts: readonly Text[]): (title: string) => boolean {
  let under: Map<string, Set<number>> | null = null;
  return (title) => {
    if (!under) {
      under = new Map();
      for (const { item, rough } of texts) {
        const called = withoutNumbers(item.title);
        const had = under.get(called);
        if (had) had.add(rough);
        else under.set(called, new Set([rough]));
      }
    }
    return title !== '' && under.get(title)?.size === 1;
  };
}

function classesOf(group: readonly Shape[], titles: (title: string) => boolean): Shape[][] {
  const classes: Shape[][] = [];
  for (const shape of group) {
    const own = classes.find(([first]) => replicas(first!, shape, titles));
    if (own) own.push(shape);
    else if (classes.length < MAX_CLASSES) classes.push([shape]);
  }
  return classes.filter((c) => c.length > 1);
}

/** Whether two items of one key are one exercise. */
function replicas(a: Shape, b: Shape, titles: (title: string) => boolean): boolean {
  const numbered = !equal(a.numbers, b.numbers);
  const renamed = a.names.filter(([, word], at) => word !== b.names[at]![1]);
  if (renamed.length > 0) {
    const around = numbered ? WORDS_AROUND_NUMBERS : WORDS_AROUND_NAMES;
    if (a.tokens.length < around || renamed.length > a.tokens.length * NAMED) return false;
    // The first word of a sentence is a name only where it is called so elsewhere, too.
    if (!numbered && renamed.every(([at]) => startsSentence(a.tokens, at))) return false;
    if (!oneForOne(a, b)) return false;
  }
  if (a.choices.length === 0 || sameList(a.masked, b.masked)) return true;
  // Other words to choose from: the same exercise only where something else says so.
  const shared = sharedCount(a.choices, b.choices);
  if (renamed.length > 0 || numbered) {
    if (shared > 0 || sharedCount(a.masked, b.masked) > 0) return true;
  } else if (shared * 2 >= a.choices.length) return true;
  const title = withoutNumbers(a.item.title);
  return title === withoutNumbers(b.item.title) && a.item.title !== b.item.title && titles(title);
}

const startsSentence = (tokens: readonly string[], at: number): boolean =>
  at === 0 || /^[.?!:;¿¡]$/u.test(tokens[at - 1]!);

/** Each name stands for one other name, all through the text. */
function oneForOne(a: Shape, b: Shape): boolean {
  const to = new Map<string, string>();
  const back = new Map<string, string>();
  return a.names.every(([, from], at) => {
    const [x, y] = [from.toLowerCase(), b.names[at]![1].toLowerCase()];
    const fits = (to.get(x) ?? y) === y && (back.get(y) ?? x) === x;
    to.set(x, y);
    back.set(y, x);
    return fits || PRONOUNS.has(x);
  });
}

const PRONOUNS: ReadonlySet<string> = new Set(['he', 'she', 'him', 'her', 'his', 'hers']);

const sorted = (list: readonly string[]): string[] => [...list].sort();
const sameList = (a: readonly string[], b: readonly string[]): boolean => equal(sorted(a), sorted(b));

function sharedCount(a: readonly string[], b: readonly string[]): number {
  const there = new Set(b);
  return a.filter((x) => there.has(x)).length;
}

function variesOf(shapes: readonly Shape[]): Varies[] {
  const [first, ...rest] = shapes;
  const differ = (what: (s: Shape) => unknown): boolean => rest.some((s) => !equal(what(s), what(first!)));
  const choices = differ((s) => sorted(s.choices));
  return [
    ...(differ((s) => s.numbers) || (choices && !differ((s) => sorted(s.masked)))
      ? (['numbers'] as const)
      : []),
    ...(differ((s) => s.names.map(([, word]) => word)) ? (['names'] as const) : []),
    ...(choices ? (['choices'] as const) : []),
    ...(!choices && differ((s) => s.choices) ? (['choice-order'] as const) : []),
  ];
}

/** Two letters are no word by which one knows a thing. */
const LEAST_TITLE = 3;

/** What the titles have in common at their start, without what only numbers the replicas; else the first's name. */
function titleOf(items: readonly Item[]): string {
  const titles = items.map((i) => i.title);
  const [first, ...rest] = titles;
  let common = first!;
  for (const title of rest) {
    let at = 0;
    while (at < common.length && common[at] === title[at]) at += 1;
    common = common.slice(0, at);
  }
  const numbered = new Set(titles.map(withoutNumbers)).size === 1;
  const counts = (first!.match(/\p{Nd}+/gu) ?? []).length;
  const tidy =
    common === first ? common : numbered && counts > 1 ? withoutLastWord(common) : withoutNumber(common);
  return Array.from(tidy).length >= LEAST_TITLE ? tidy : nameOf(items[0]!);
}

/** A text without the characters of a kind that it ends in. One pass, however long the text. */
function cutEnd(text: string, kind: RegExp, most = Number.POSITIVE_INFINITY): string {
  let end = text.length;
  for (let cut = 0; cut < most && end > 0; cut++) {
    const last = String.fromCodePoint(text.codePointAt(end - (isLowSurrogate(text, end - 1) ? 2 : 1))!);
    if (!kind.test(last)) break;
    end -= last.length;
  }
  return text.slice(0, end);
}
const isLowSurrogate = (text: string, at: number): boolean =>
  at > 0 && text.charCodeAt(at) >= 0xdc00 && text.charCodeAt(at) <= 0xdfff;

/** "Exercise 1, version 2" is "Exercise 1": the word before the last number is about replicas. */
const withoutLastWord = (text: string): string =>
  cutEnd(cutEnd(cutEnd(text, /[\s\p{P}\p{S}\p{Nd}]/u), /\p{L}/u), /[\s\p{P}\p{S}]/u);

/** "Exercise 1a" and "Exercise 1" are "Exercise": the number, and up to three letters behind it. */
function withoutNumber(text: string): string {
  const bare = cutEnd(text, /[\s\p{P}\p{Nd}]/u);
  const letters = cutEnd(bare, /\p{L}/u, 3);
  const numbered = cutEnd(letters, /[\s\p{P}\p{S}\p{Nd}]/u);
  return numbered === letters ? cutEnd(text, /[\s\p{P}\p{S}\p{Nd}]/u) : numbered;
}
