import equal from 'fast-deep-equal';
import type { Item } from '../model/holding.ts';
import type { BaseType } from '../model/scoring.ts';
import { near } from '../model/number.ts';
import { evaluate, instantiate, type Answers } from '../scoring/evaluate.ts';
import type { AnswersOfBoth, Scored } from './answers.ts';

/** First answers of an adaptive item that are followed by a second one; each is two runs of both programs. */
const MAX_FOLLOWED = 40;
/** Candidates for whom both parameterised items are made. */
const SEEDS = [1, 2, 3, 4, 5, 6, 7, 8];

/**
 * Whether a second attempt counts the same on both sides (QTI 2.1, "adaptive": outcomes keep their values from
 * one attempt to the next).
 */
export function sameLater({ source, arrived, pairs }: AnswersOfBoth): boolean {
  if (!source.item.adaptive && !arrived.item.adaptive) return true;
  const best = pairs.find((p) => equal(p.left, source.recognised.best.answers));
  if (!best) return true;
  return pairs
    .slice(0, MAX_FOLLOWED)
    .every((first) =>
      near(shareAfter(source, [first.left, best.left]), shareAfter(arrived, [first.right, best.right])),
    );
}

function shareAfter({ item, recognised }: Scored, attempts: readonly Answers[]): number {
  let last = evaluate(item, {});
  attempts.forEach((answers, at) => {
    last = evaluate(item, answers, {
      attempts: at + 1,
      ...(item.adaptive && at > 0 ? { previous: last.outcomes } : {}),
    });
  });
  return recognised.best.raw > 0 ? last.raw / recognised.best.raw : last.raw;
}

/** Whether the parameters of both items come out the same for the same candidates. */
export function sameSeeds({ source, arrived }: AnswersOfBoth): boolean {
  const [a, b] = [source.given, arrived.given];
  if (a.templates.length === 0 && b.templates.length === 0) return true;
  return SEEDS.every((seed) => equal(valuesOf(a, seed), valuesOf(b, seed)));
}

/** Values in the order of their declarations: what they, and choices, are called may differ. */
function valuesOf(item: Item, seed: number): unknown[] {
  const made = instantiate(item, seed);
  const names = (type: BaseType | null): boolean => type !== null && NAMING.has(type);
  return [
    ...item.templates.map((t) => (names(t.baseType) ? null : (made.templates.get(t.id)?.values ?? null))),
    ...item.responses.map((r) => (names(r.baseType) ? null : (made.correct.get(r.id)?.values ?? null))),
  ];
}

/** Types whose values are identifiers. */
const NAMING: ReadonlySet<BaseType> = new Set(['identifier', 'pair', 'directedPair']);
