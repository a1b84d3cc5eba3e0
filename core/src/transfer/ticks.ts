import type { Holding } from '../model/holding.ts';
import type { Chosen } from '../writing/select.ts';
import type { ThingKind } from '../landing/types.ts';

/**
 * What can be ticked. `loose` is every item that stands in no quiz and no bank, and `without-item` one of those that
 * stays behind; `without` is a bank that stays behind though a ticked quiz draws from it, `without-rubric` a rubric
 * that an item which goes is graded by.
 */
export const NODE_KINDS = [
  'quiz',
  'bank',
  'item',
  'link',
  'rubric',
  'loose',
  'without',
  'without-item',
  'without-rubric',
] as const;
export type NodeKind = (typeof NODE_KINDS)[number];

/** One node that somebody has ticked. */
export interface Tick {
  readonly kind: NodeKind;
  readonly nodeId: string;
}

/** Every item that stands in no quiz and no bank: one tick, however many they are. */
export const LOOSE: Tick = { kind: 'loose', nodeId: '' };

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
    loose: of('loose').size > 0,
    without: of('without'),
    withoutItems: of('without-item'),
    withoutRubrics: of('without-rubric'),
  };
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
