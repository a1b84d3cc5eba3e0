import { deliver } from '../assemble/deliver.ts';
import type { Draw, Item, Quiz, Section } from '../model/holding.ts';
import { itemWeights } from '../model/places.ts';
import { inOwnDraw, quizItems } from '../model/quizzes.ts';
import { flatSections, type TestSection } from '../model/testStructure.ts';
import { seedOf } from '../scoring/seedOf.ts';
import {
  binomial,
  certain,
  distributionOf,
  distributionOfSample,
  drawnSum,
  hypergeometric,
  repeatedSum,
  sumOf,
  type Chances,
  type Distribution,
} from './distribution.ts';
import { secondsFor } from './time.ts';

/** What the draws of a quiz make of it for those who sit it. */
export interface Fairness {
  /** Whether all draws were counted, or so many candidates were drawn. */
  readonly exact: boolean;
  readonly candidates: number | null;
  readonly seed: string | null;
  /** Points that a candidate can reach, by what each item is worth by itself. */
  readonly total: Distribution;
  /** Minutes that a candidate is expected to need. */
  readonly minutes: Distribution;
  /** Items of each category that a candidate is set. */
  readonly categories: readonly { readonly category: string | null; readonly items: Distribution }[];
  /** How likely a candidate is set each item, in the order of the quiz. */
  readonly met: readonly { readonly item: string; readonly chance: number }[];
  /** Items that two candidates have in common. */
  readonly shared: Distribution;
}

/** Candidates drawn where draws cannot be counted. */
export const CANDIDATES = 10_000;
/** Expected time is told in quarters of a minute: it is an estimate. */
const QUARTER = 15;

/** One item of the quiz, as far as fairness goes. */
interface Counted {
  readonly id: string;
  readonly points: number;
  readonly seconds: number;
  readonly category: string | null;
}

/**
 * What candidates are set by the draws of a quiz: exactly, where its draws do not depend on one another, else from
 * seeded candidates.
 */
export function fairnessOf(quiz: Quiz, items: readonly Item[], seed = '1'): Fairness {
  const counted = countedItems(quiz, items);
  return exactly(quiz, counted) ?? sampled(quiz, counted, seed);
}

function countedItems(quiz: Quiz, items: readonly Item[]): Map<string, Counted> {
  const wanted = new Set(quizItems(quiz));
  const weights = itemWeights([quiz]);
  return new Map(
    items.flatMap((item): [string, Counted][] =>
      wanted.has(item.id)
        ? [
            [
              item.id,
              {
                id: item.id,
                points: item.points / (weights.get(item.id) || 1),
                seconds: Math.round(secondsFor(item) / QUARTER) * QUARTER,
                category: item.category,
              },
            ],
          ]
        : [],
    ),
  );
}

/** The draw's pool, and what everybody is set of a section, each with its weight. */
interface Place {
  readonly fixed: readonly { readonly item: Counted; readonly weight: number }[];
  readonly draw: Draw | null;
  readonly pool: readonly { readonly item: Counted; readonly weight: number }[];
}

function placeOf(section: Section, items: ReadonlyMap<string, Counted>): Place {
  const known = (id: string, weight: number) => {
    const item = items.get(id);
    return item ? [{ item, weight }] : [];
  };
  return {
    fixed: section.items.filter((r) => !inOwnDraw(section, r.item)).flatMap((r) => known(r.item, r.weight)),
    draw: section.draw,
    pool: (section.draw?.pool ?? []).flatMap((id, at) => known(id, section.draw!.weights?.[at] ?? 1)),
  };
}

/** Whether sections of a test are drawn by themselves, or what is drawn depends on something else. */
const isPlain = (quiz: Quiz): boolean =>
  quiz.test === null ||
  (flatSections(quiz.test).length === quiz.sections.length &&
    quiz.test.parts.every((p) => unconditional(p) && p.sections.every(plainSection)));

const unconditional = (stage: {
  readonly preConditions: readonly unknown[];
  readonly branchRules: readonly unknown[];
}): boolean => stage.preConditions.length === 0 && stage.branchRules.length === 0;

/** Sections in sections are all set; only items are drawn, and none of them is required. */
const plainSection = (section: TestSection): boolean =>
  unconditional(section) &&
  (section.selection === null || section.children.every((c) => c.kind === 'item' && !c.required)) &&
  section.children.every((c) => (c.kind === 'item' ? unconditional(c) : plainSection(c)));

function exactly(quiz: Quiz, items: ReadonlyMap<string, Counted>): Fairness | null {
  if (!isPlain(quiz)) return null;
  const places = quiz.sections.map((s) => placeOf(s, items));
  const overall = (worth: (item: Counted, weight: number) => number): Chances | null => {
    let sum: Chances = certain(0);
    for (const { fixed, draw, pool } of places) {
      const set = fixed.reduce((n, f) => n + worth(f.item, f.weight), 0);
      sum = sumOf(sum, certain(set));
      if (!draw) continue;
      const drawn = (draw.withReplacement ? repeatedSum : drawnSum)(
        pool.map((p) => worth(p.item, p.weight)),
        draw.pick,
      );
      if (!drawn || drawn.size * sum.size > MAX_CONVOLVED) return null;
      sum = sumOf(sum, drawn);
    }
    return sum;
  };
  const total = overall((item, weight) => item.points * weight);
  const seconds = overall((item) => item.seconds);
  if (!total || !seconds) return null;
  const categories = [...new Set([...items.values()].map((i) => i.category))];
  return {
    exact: true,
    candidates: null,
    seed: null,
    total: distributionOf(total),
    minutes: distributionOf(inMinutes(seconds)),
    categories: categories.map((category) => ({
      category,
      items: distributionOf(ofCategory(places, category)),
    })),
    met: metIn(places),
    shared: distributionOf(sharedIn(places)),
  };
}

/** Sums of two parts that are put together at once. */
const MAX_CONVOLVED = 4_000_000;

const inMinutes = (seconds: Chances): Chances => new Map([...seconds].map(([s, p]) => [s / 60, p]));

/** Items of a category: those for everybody, and as many as each draw meets. */
function ofCategory(places: readonly Place[], category: string | null): Chances {
  let sum: Chances = certain(0);
  for (const { fixed, draw, pool } of places) {
    sum = sumOf(sum, certain(fixed.filter((f) => f.item.category === category).length));
    if (!draw || pool.length === 0) continue;
    const marked = pool.filter((p) => p.item.category === category).length;
    const met = draw.withReplacement
      ? binomial(draw.pick, marked / pool.length)
      : hypergeometric(pool.length, marked, Math.min(draw.pick, pool.length));
    sum = sumOf(sum, met);
  }
  return sum;
}

/** Draws do not depend on one another: what is in several of them is missed by all. */
function metIn(places: readonly Place[]): Fairness['met'] {
  const missed = new Map<string, number>();
  const miss = (id: string, chance: number): void => void missed.set(id, (missed.get(id) ?? 1) * chance);
  for (const { fixed, draw, pool } of places) {
    for (const { item } of fixed) miss(item.id, 0);
    if (!draw) continue;
    const n = pool.length;
    for (const { item } of pool)
      miss(item.id, draw.withReplacement ? (1 - 1 / n) ** draw.pick : 1 - Math.min(draw.pick, n) / n);
  }
  return [...missed].map(([item, chance]) => ({ item, chance: 1 - chance }));
}

/** Of two draws of k from n, as many are the same as a second draw meets of those of the first. */
function sharedIn(places: readonly Place[]): Chances {
  let sum: Chances = certain(0);
  for (const { fixed, draw, pool } of places) {
    sum = sumOf(sum, certain(fixed.length));
    if (draw && pool.length > 0) {
      const pick = Math.min(draw.pick, pool.length);
      sum = sumOf(sum, hypergeometric(pool.length, pick, pick));
    }
  }
  return sum;
}

/** The same, from candidates that seeds make. */
function sampled(quiz: Quiz, items: ReadonlyMap<string, Counted>, seed: string): Fairness {
  const weights = new Map(quiz.sections.flatMap((s) => s.items.map((r) => [r.item, r.weight] as const)));
  const totals: number[] = [];
  const minutes: number[] = [];
  const shared: number[] = [];
  const counts = new Map<string | null, number[]>();
  const met = new Map<string, number>();
  const categories = [...new Set([...items.values()].map((i) => i.category))];
  for (const category of categories) counts.set(category, []);
  let before: ReadonlySet<string> = new Set();
  for (let n = 0; n < CANDIDATES; n++) {
    const set = deliver(quiz, seedOf(`${seed}/${n}`)).flatMap((d) => items.get(d.item) ?? []);
    totals.push(set.reduce((sum, i) => sum + i.points * (weights.get(i.id) ?? 1), 0));
    minutes.push(set.reduce((sum, i) => sum + i.seconds, 0) / 60);
    for (const category of categories)
      counts.get(category)!.push(set.filter((i) => i.category === category).length);
    const ids = new Set(set.map((i) => i.id));
    for (const id of ids) met.set(id, (met.get(id) ?? 0) + 1 / CANDIDATES);
    // Each candidate with the one before: neighbours in the order in which they came.
    if (n > 0) shared.push([...ids].filter((id) => before.has(id)).length);
    before = ids;
  }
  return {
    exact: false,
    candidates: CANDIDATES,
    seed,
    total: distributionOfSample(totals),
    minutes: distributionOfSample(minutes),
    categories: categories.map((category) => ({
      category,
      items: distributionOfSample(counts.get(category)!),
    })),
    met: [...items.keys()].map((item) => ({ item, chance: met.get(item) ?? 0 })),
    shared: distributionOfSample(shared),
  };
}
