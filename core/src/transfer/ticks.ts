import type { Bank, Holding, Quiz } from '../model/holding.ts';
import { quizItems } from '../model/quizzes.ts';
import type { Chosen } from '../writing/select.ts';
import type { ThingKind } from '../landing/types.ts';

/**
 * What can be ticked. `without` is a bank that stays behind though a ticked quiz draws from it; `without-
 * rubric` a rubric that an item which goes is graded by.
 */
export const NODE_KINDS = ['quiz', 'bank', 'item', 'link', 'rubric', 'without', 'without-rubric'] as const;
export type NodeKind = (typeof NODE_KINDS)[number];

/** One node that somebody has ticked. */
export interface Tick {
  readonly kind: NodeKind;
  readonly nodeId: string;
}

/** Tells ticks apart; for looking up only, never taken apart again. */
export const tickId = ({ kind, nodeId }: Tick): string => `${kind} ${nodeId}`;

/** The ticks by kind, as selecting asks for them. */
export function chosenFrom(ticks: readonly Tick[]): Chosen {
  const of = (kind: NodeKind): Set<string> =>
    new Set(ticks.filter((t) => t.kind === kind).map((t) => t.nodeId));
  return {
    quizzes: of('quiz'),
    banks: of('bank'),
    items: of('item'),
    links: of('link'),
    rubrics: of('rubric'),
    without: of('without'),
    withoutRubrics: of('without-rubric'),
  };
}

/** Ids of the items that stand in no quiz and no bank. */
export function looseIds(
  holding: { readonly quizzes: readonly Quiz[]; readonly banks: readonly Bank[] },
  ids: readonly string[],
): string[] {
  const held = new Set([...holding.quizzes.flatMap(quizItems), ...holding.banks.flatMap((b) => b.items)]);
  return ids.filter((id) => !held.has(id));
}

/** Everything of these kinds. */
export function ticksOfKinds(
  holding: Pick<Holding, 'quizzes' | 'banks' | 'links' | 'rubrics'>,
  kinds: readonly ThingKind[],
): Tick[] {
  const lists = {
    quiz: holding.quizzes,
    bank: holding.banks,
    link: holding.links,
    rubric: holding.rubrics,
  } as const;
  return kinds.flatMap((kind) => lists[kind].map(({ id }) => ({ kind, nodeId: id })));
}
