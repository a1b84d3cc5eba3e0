import equal from 'fast-deep-equal';
import type { Interaction } from '../model/content.ts';
import { areaText, optionSets, type Option } from '../model/options.ts';
import { interactionsOf } from '../model/visit.ts';
import { difference } from './differences.ts';
import type { ChoicesSaid, ShuffleSaid } from './said.ts';
import { optionShown, type Side } from './side.ts';
import { translate } from './translate.ts';
import type { Difference } from './types.ts';

/** Interactions in which the order of what is shown matters to nobody who answers by name. */
const UNORDERED: ReadonlySet<Interaction['kind']> = new Set([
  'hotspot',
  'graphicOrder',
  'graphicAssociate',
  'hottext',
]);

/** One facet of the interactions of an item, those that differ side by side. */
class Sides<T> {
  readonly from: T[] = [];
  readonly to: T[] = [];
  add(from: readonly T[], to: readonly T[]): void {
    if (!equal(from, to)) this.put(from, to);
  }
  put(from: readonly T[], to: readonly T[]): void {
    this.from.push(...from);
    this.to.push(...to);
  }
}

/** What is offered, in which order, and whether that is shuffled. */
export function compareChoices(source: Side, arrived: Side): Difference[] {
  const choices = new Sides<ChoicesSaid>();
  const order = new Sides<readonly string[]>();
  const shuffle = new Sides<ShuffleSaid>();
  const { choices: answering } = translate(source, arrived);
  const right = interactionsOf(arrived.item);
  interactionsOf(source.item).forEach((a, at) => {
    const b = right[at];
    if (!b) return;
    const [from, to] = [optionSets(a), optionSets(b)];
    from.forEach((left, set) => {
      const there = to[set] ?? [];
      const [x, y] = [left.map(optionShown), there.map(optionShown)];
      if (!equal([...x].sort(), [...y].sort())) choices.add([{ texts: x }], [{ texts: y }]);
      if (UNORDERED.has(a.kind) || left.length !== there.length) return;
      const wanted = left.map((c) => answering.get(c.id)).filter((id) => id !== undefined);
      const found = there.map((c) => c.id).filter((id) => wanted.includes(id));
      if (!equal(wanted, found)) {
        const [was, is] = orderSaid(x, y, wanted, found);
        order.add([was], [is]);
      }
    });
    const named = (id: string): string => answering.get(id) ?? id;
    const [mine, theirs] = [pinnedIds(a, from.flat()).map(named).sort(), pinnedIds(b, to.flat()).sort()];
    if (!equal([isShuffled(a), mine], [isShuffled(b), theirs]))
      shuffle.put([shuffleOf(a, from.flat())], [shuffleOf(b, to.flat())]);
    choices.add(areasOf(a), areasOf(b));
  });
  return [
    ...(choices.from.length + choices.to.length > 0 ? [difference('choices', choices.from, choices.to)] : []),
    ...(order.from.length > 0 ? [difference('choice-order', order.from, order.to)] : []),
    ...(shuffle.from.length > 0 ? [difference('shuffle', shuffle.from, shuffle.to)] : []),
  ];
}

/** Both orders; where choices say the same, by the numbers they had. */
function orderSaid(
  from: readonly string[],
  to: readonly string[],
  wanted: readonly string[],
  found: readonly string[],
): [readonly string[], readonly string[]] {
  if (!equal(from, to)) return [from, to];
  return [
    from.map((t, at) => `${t} (${at + 1})`),
    to.map((t, at) => `${t} (${wanted.indexOf(found[at]!) + 1})`),
  ];
}

const isShuffled = (i: Interaction): boolean => 'shuffle' in i && i.shuffle;

/** Choices that keep their places while the others are shuffled. */
const pinned = (i: Interaction, options: readonly Option[]): readonly Option[] =>
  isShuffled(i) ? options.filter((c) => c.fixed) : [];
const pinnedIds = (i: Interaction, options: readonly Option[]): string[] =>
  pinned(i, options).map((c) => c.id);

/** Whether it is shuffled, and what the choices say that keep their places then. */
const shuffleOf = (i: Interaction, options: readonly Option[]): ShuffleSaid => ({
  of: 'choices',
  shuffled: isShuffled(i),
  pinned: pinned(i, options).map((c) => optionShown(c) || c.id),
});

/** Where the areas of a picture lie; a slider's ends. */
function areasOf(i: Interaction): ChoicesSaid[] {
  if ('hotspots' in i) return [{ areas: i.hotspots.map(areaText).sort() }];
  if (i.kind === 'slider') return [{ low: i.lowerBound, high: i.upperBound, step: i.step ?? 1 }];
  return [];
}
