import type { Item } from '../model/holding.ts';
import type { Expr, Rule } from '../model/scoring.ts';
import { composed } from '../model/composed.ts';
import { choicesOf } from '../model/options.ts';
import { optionText, stemText } from '../model/plainText.ts';
import { interactionsOf } from '../model/visit.ts';
import { wordsOf } from './asked.ts';
import { canonicalMath } from './canonical.ts';

/** What two items are held against one another by. */
export interface Features {
  /** Pairs of neighbouring words, of letters where there are no blanks; of few words also parts of them. */
  readonly shingles: ReadonlySet<string>;
  readonly words: number;
  readonly title: string;
  readonly kinds: string;
  readonly category: string;
  /** Formulas, and answers that the scoring knows: texts, numbers, what choices say. */
  readonly answers: ReadonlySet<string>;
}

/** Below this number of words, letters tell more than words do. */
const FEW_WORDS = 10;
const GRAM = 3;

/** `ownTitle`: no other item beside it is called the same. */
export function featuresOf(item: Item, ownTitle = true): Features {
  const words = wordsOf(item);
  const shingles = new Set<string>();
  for (let at = 0; at + 1 < words.length; at++) shingles.add(`${words[at]} ${words[at + 1]}`);
  if (words.length < FEW_WORDS)
    for (const word of words) {
      shingles.add(word);
      for (const gram of grams(word)) shingles.add(gram);
    }
  return {
    shingles,
    words: words.length,
    title: ownTitle ? composed(item.title) : '',
    kinds: interactionsOf(item)
      .map((i) => i.kind)
      .join(),
    category: composed(item.category ?? ''),
    answers: new Set([...canonicalMath(item.body), ...knownAnswers(item)]),
  };
}

/** Parts of a word, its ends marked. */
function grams(word: string): string[] {
  const letters = Array.from(`^${word}$`);
  return letters.slice(GRAM - 1).map((_, at) => letters.slice(at, at + GRAM).join(''));
}

/** Titles that share less than this are two titles: letters are shared by chance. */
const SAME_TITLE = 0.5;

/** How much of the letters of two titles is shared; nothing where that is little. */
function titleLikeness(a: string, b: string): number {
  if (a === b) return 1;
  const shared = jaccard(new Set(grams(a.toLowerCase())), new Set(grams(b.toLowerCase())));
  return shared >= SAME_TITLE ? shared : 0;
}

/** How much of the letters of two stems is shared, whatever the choices are. */
export function stemLikeness(a: Item, b: Item): number {
  const of = (item: Item): Set<string> => new Set(grams(composed(stemText(item)).toLowerCase()));
  return jaccard(of(a), of(b));
}

/**
 * What responses are compared with, where that is not for what is wrong: texts and numbers as they are, choices
 * by what they say, since their identifiers tell nothing of an item.
 */
function knownAnswers(item: Item): string[] {
  const found: string[] = [];
  const texts = new Map(choicesOf(item).map((c) => [c.id, optionText(c)]));
  const say = (value: unknown): void =>
    void found.push(
      composed(
        String(value)
          .split(' ')
          .every((p) => texts.has(p))
          ? String(value)
              .split(' ')
              .map((p) => texts.get(p)!)
              .join(' - ')
          : String(value),
      ).toLowerCase(),
    );
  for (const r of item.responses) {
    r.correct.forEach(say);
    r.mapping?.entries.forEach((e) => e.value > 0 && say(e.key));
  }
  const inside = (expr: Expr): void => {
    if (expr.op === 'baseValue' && expr.baseType !== 'boolean') say(expr.value);
    if (expr.op === 'call' && expr.name !== 'not') expr.args.forEach(inside);
  };
  const visit = (rules: readonly Rule[]): void => {
    for (const rule of rules)
      if (rule.do === 'if') {
        for (const branch of rule.branches) {
          inside(branch.when);
          visit(branch.then);
        }
        visit(rule.otherwise);
      }
  };
  visit(item.scoring.rules);
  return found;
}

/** Share of what either has that both have (Jaccard index). */
export function jaccard(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  if (a.size === 0 && b.size === 0) return 1;
  let common = 0;
  for (const shingle of a) if (b.has(shingle)) common += 1;
  return common / (a.size + b.size - common);
}

/** How much title, kind, category and answers count beside the wording: more, the fewer words there are. */
const LEAST_SUPPORT = 0.1;
const MOST_SUPPORT = 0.5;
const MANY_WORDS = 30;
const SUPPORT = { title: 0.4, answers: 0.3, kinds: 0.2, category: 0.1 } as const;

/** From 0 to 1: how likely two items are one. */
export function likeness(a: Features, b: Features): number {
  const words = Math.min(a.words, b.words);
  const share = LEAST_SUPPORT + (MOST_SUPPORT - LEAST_SUPPORT) * Math.max(0, 1 - words / MANY_WORDS);
  let said = 0;
  let agreed = 0;
  const weigh = (weight: number, tells: boolean, agree: number): void => {
    if (!tells) return;
    said += weight;
    agreed += weight * agree;
  };
  weigh(SUPPORT.title, a.title !== '' && b.title !== '', titleLikeness(a.title, b.title));
  weigh(SUPPORT.answers, a.answers.size + b.answers.size > 0, jaccard(a.answers, b.answers));
  weigh(SUPPORT.kinds, true, Number(a.kinds === b.kinds));
  weigh(SUPPORT.category, a.category !== '' && b.category !== '', Number(a.category === b.category));
  // What neither says weighs nothing, so that the wording weighs the more.
  return (1 - share * said) * jaccard(a.shingles, b.shingles) + share * agreed;
}
