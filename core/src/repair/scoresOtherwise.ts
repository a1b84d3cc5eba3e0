import { compareItems } from '../compare/items.ts';
import { fileContents } from '../compare/side.ts';
import type { Example, Facet } from '../compare/types.ts';
import { applyEdits } from '../edit/apply.ts';
import { insteadOf } from '../edit/nearest.ts';
import type { Edit } from '../edit/schema.ts';
import type { Holding, Item } from '../model/holding.ts';
import { near } from '../model/number.ts';
import { responseIdsOf } from '../model/options.ts';
import { interactionsOf } from '../model/visit.ts';
import { evaluate, type Answers } from '../scoring/evaluate.ts';
import { probesOf } from '../scoring/probe.ts';
import { recognise } from '../scoring/recognise.ts';

/** That somebody scores otherwise by a change, with an answer that does, where one can be named. */
export interface Otherwise {
  readonly example: Example | null;
}

const SCORE_FACETS: ReadonlySet<Facet> = new Set([
  'key',
  'points',
  'scoring',
  'tolerance',
  'case-sensitivity',
]);

/**
 * An answer that scores otherwise after some edits of one item, found by running both, edit by edit; null where
 * there is none.
 * @param alone a holding of that item
 */
export function scoresOtherwise(alone: Holding, edits: readonly Edit[], id: string): Otherwise | null {
  let before = alone;
  for (const edit of edits) {
    const item = before.items.find((i) => i.id === id);
    const after = applyEdits(before, [edit]).holding;
    if (!item) return { example: null };
    const otherwise =
      edit.op === 'separate' ? apart(before, after, item) : changed(before, after, item, edit);
    if (otherwise) return otherwise;
    before = after;
  }
  return null;
}

/** Each row or blank scores by itself what it scored before, unless it was all or nothing. */
function apart(before: Holding, after: Holding, item: Item): Otherwise | null {
  const parts = after.items.reduce((sum, i) => sum + i.points, 0);
  const asked = applyEdits(before, [{ op: 'separate', node: item.id }]);
  return near(parts, item.points) && asked.refused.length === 0 ? null : { example: null };
}

function changed(before: Holding, after: Holding, item: Item, edit: Edit): Otherwise | null {
  const now = after.items.find((i) => i.id === item.id);
  if (!now) return { example: null };
  const forward = edit.op === 'kind' ? forwardOf(item, edit.from) : null;
  if (forward) return givenOtherwise(item, now, forward);
  const differing = compareItems(item, now, fileContents(before), fileContents(after)).filter((d) =>
    SCORE_FACETS.has(d.facet),
  );
  return differing.length === 0
    ? null
    : { example: differing.find((d) => d.example !== null)?.example ?? null };
}

/** How answers are given after a change of kind; null where they are given as before. */
function forwardOf(item: Item, kind: string): ((answers: Answers) => Answers | null) | null {
  const ways = new Map(
    interactionsOf(item).flatMap((i) => {
      const forward = i.kind === kind ? insteadOf(item, i)?.forward : undefined;
      return forward ? responseIdsOf(i).map((id) => [id, forward] as const) : [];
    }),
  );
  if (ways.size === 0) return null;
  return (answers) => {
    const given = Object.entries(answers).map(
      ([id, values]) => [id, ways.get(id)?.(values) ?? null, values] as const,
    );
    if (given.some(([id, to]) => ways.has(id) && to === null)) return null;
    return Object.fromEntries(given.map(([id, to, values]) => [id, to ?? values]));
  };
}

/** Every answer worth trying, given in both kinds. */
function givenOtherwise(
  item: Item,
  now: Item,
  forward: (answers: Answers) => Answers | null,
): Otherwise | null {
  const tried = probesOf(item, recognise(item).best.answers).answers;
  const differs = tried.some((answers) => {
    const given = forward(answers);
    return given !== null && !near(evaluate(item, answers).score, evaluate(now, given).score);
  });
  return differs ? { example: null } : null;
}
