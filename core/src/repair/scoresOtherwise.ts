import { scoreQuiz } from '../assemble/scoreQuiz.ts';
import { compareItems } from '../compare/items.ts';
import { fileContents } from '../compare/side.ts';
import type { Example, Facet } from '../compare/types.ts';
import { applyEdits } from '../edit/apply.ts';
import { insteadOf } from '../edit/nearest.ts';
import type { Edit } from '../edit/schema.ts';
import type { Holding, Item, Quiz } from '../model/holding.ts';
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
    // Each replica has been run beside the item it is made from, and they take its place.
    if (edit.op === 'replicas') return null;
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
  if (!near(parts, item.points)) return { example: null };
  const asked = applyEdits(before, [{ op: 'separate', node: item.id }]);
  return asked.refused.length === 0 ? null : { example: null };
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

/** Items of a quiz that are answered one by one; with more, the first and the last of them. */
const TRIED_ALONE = 40;

/**
 * Whether somebody is given another total for a quiz that becomes its sections alone: all of it right, none of it, and
 * where nothing is drawn, each question right by itself.
 */
export function quizOtherwise(before: Holding, after: Holding, id: string): Otherwise | null {
  const [was, is] = [before, after].map((h) => h.quizzes.find((q) => q.id === id));
  if (!was?.test || !is || is.test) return null;
  const best = new Map(before.items.map((i) => [i.id, recognise(i).best.answers]));
  // Another delivery draws other questions by the same seed.
  const ids = was.sections.some((s) => s.draw) ? [] : [...best.keys()];
  const half = TRIED_ALONE / 2;
  const alone = ids.length <= TRIED_ALONE ? ids : [...ids.slice(0, half), ...ids.slice(-half)];
  const tried: ReadonlyMap<string, Answers>[] = [
    best,
    new Map(),
    ...alone.map((one) => new Map([[one, best.get(one)!]])),
  ];
  const total = (quiz: Quiz, { items }: Holding, answers: ReadonlyMap<string, Answers>): number =>
    scoreQuiz(quiz, items, answers).total;
  return tried.some((answers) => !near(total(was, before, answers), total(is, after, answers)))
    ? { example: null }
    : null;
}
