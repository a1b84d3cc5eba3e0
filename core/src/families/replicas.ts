import { MAX_REPLICAS } from './limits.ts';
import { fingerprint } from '../match/asked.ts';
import { finding, type Finding } from '../model/finding.ts';
import type { Holding, Item } from '../model/holding.ts';
import { near, tidyNumber } from '../model/number.ts';
import type { Scalar } from '../model/scoring.ts';
import { bestOf } from '../scoring/best.ts';
import { concrete } from '../scoring/concrete.ts';
import { evaluate, instantiate, rawScore } from '../scoring/evaluate.ts';
import { keyTexts } from '../scoring/keyTexts.ts';
import { probesOf } from '../scoring/probe.ts';
import { recognise } from '../scoring/recognise.ts';
import { seedOf } from '../scoring/seedOf.ts';
import type { Value } from '../scoring/value.ts';

/** One fixed item made from one with templates. */
export interface Replica {
  readonly item: Item;
  /** The seed of its template processing. */
  readonly seed: number;
  /** Template variables: one value, or several of a container. */
  readonly values: Readonly<Record<string, Scalar | readonly Scalar[] | null>>;
  readonly key: readonly string[];
  /** Answers that were given to both, the item under this seed and the replica, and scored the same. */
  readonly proved: number;
}

/** Seeds in a row that gave nothing new before it is given up: what has few values gives the same again and again. */
const FRUITLESS = 200;
/** An item that scores otherwise under so many seeds does so under all. */
const MOST_UNPROVED = 5;

export const hasTemplates = (item: Item): boolean =>
  item.templates.length > 0 || item.templateRules.length > 0;

/**
 * Fixed items out of one with template processing (QTI 2.1, "Item Templates"): seeds follow from `seed`, no two
 * replicas ask the same with the same key, and each is run beside the item it was made from on all probe answers.
 * @param count at most MAX_REPLICAS
 * @returns fewer than wanted, with the finding `replicas-few`, where there are too few values
 */
export function replicasOf(
  item: Item,
  count: number,
  seed: string,
): { readonly replicas: readonly Replica[]; readonly findings: readonly Finding[] } {
  const made: Replica[] = [];
  const seen = new Set<string>();
  const findings: Finding[] = [];
  const wanted = Math.min(count, MAX_REPLICAS);
  const drawn = new Set<string>();
  let fruitless = 0;
  for (let at = 0; made.length < wanted && fruitless < FRUITLESS; at++) {
    const own = seedOf(`${seed}/${at}`);
    fruitless += 1;
    // The same values make the same item: that is found without making it.
    const { templates, correct, defaults } = instantiate(item, own);
    const filled = JSON.stringify([[...templates], [...correct], [...defaults]]);
    if (drawn.has(filled)) continue;
    drawn.add(filled);
    const fixed = concrete(item, own);
    const key = keyTexts(fixed, recognise(fixed));
    const print = `${fingerprint(fixed)} ${key.join('\u0001')}`;
    if (seen.has(print)) continue;
    seen.add(print);
    const proved = provedAnswers(item, fixed, own);
    if (proved === null) {
      findings.push(finding('replica-unproved', 'error', { node: item.id }, { seed: own }));
      if (findings.length >= MOST_UNPROVED) break;
      continue;
    }
    fruitless = 0;
    made.push({ item: fixed, seed: own, values: valuesOf(templates), key, proved });
  }
  if (made.length < wanted)
    findings.push(
      finding('replicas-few', 'warning', { node: item.id }, { made: made.length, wanted: count }),
    );
  return { replicas: made.map((r, at) => ({ ...r, item: named(r.item, item, at, made.length) })), findings };
}

/** Numbered in identifier and title, so that they are told apart and are known for parts of one. */
function named(fixed: Item, from: Item, at: number, of: number): Item {
  const { raw } = bestOf(fixed);
  const before = bestOf(concrete(from)).raw;
  return {
    ...fixed,
    id: `${from.id}-${at + 1}`,
    title: from.title === '' ? '' : `${from.title} (${at + 1}/${of})`,
    points: near(raw, before) ? from.points : tidyNumber(raw * from.scale),
  };
}

/** How many answers score the same on both, in every outcome; null where one does not. */
function provedAnswers(item: Item, fixed: Item, seed: number): number | null {
  const { answers } = probesOf(fixed, bestOf(fixed).answers);
  const same = answers.every((given) => {
    const [a, b] = [evaluate(item, given, { seed }), evaluate(fixed, given, { seed })];
    return (
      near(a.raw, b.raw) &&
      item.outcomes.every(({ id }) => JSON.stringify(a.outcomes[id]) === JSON.stringify(b.outcomes[id]))
    );
  });
  return same && near(rawScore(fixed, {}), evaluate(item, {}, { seed }).raw) ? answers.length : null;
}

const valuesOf = (templates: ReadonlyMap<string, Value>): Replica['values'] =>
  Object.fromEntries(
    [...templates].map(([id, value]) => [
      id,
      value === null ? null : value.cardinality === 'single' ? value.values[0]! : value.values,
    ]),
  );

/** The replicas of one item as a bank of its name, with the files they need; nothing else of the holding. */
export function replicaHolding(holding: Holding, item: Item, replicas: readonly Replica[]): Holding {
  const needs = new Set(item.files.map((f) => f.path));
  const bank = {
    id: `${item.id}-replicas`,
    title: item.title || item.id,
    items: replicas.map((r) => r.item.id),
    metadata: [],
    origin: null,
  };
  return {
    ...holding,
    title: bank.title,
    quizzes: [],
    banks: [bank],
    items: replicas.map((r) => r.item),
    rubrics: [],
    links: [],
    files: holding.files.filter((f) => needs.has(f.path)),
    outline: [],
    findings: [],
  };
}
