import type { Holding, Item } from '../model/holding.ts';
import type { MatchOptions } from '../match/match.ts';
import { nameOf } from '../model/plainText.ts';
import { compareContainers } from './containers.ts';
import { compareRubrics } from './compareRubrics.ts';
import { compareHoldings } from './compare.ts';
import { difference } from './differences.ts';
import { compareItems } from './items.ts';
import { fileContents } from './side.ts';
import type { Comparison, ContainerReport, Difference } from './types.ts';

/** Something that was changed on purpose, and arrived as it was changed. */
export interface OnPurpose {
  readonly kind: 'item' | 'quiz' | 'bank' | 'rubric';
  readonly node: string;
  readonly difference: Difference;
}

/** What a thing says that does not go at all. */
const LEFT_OUT = 'left out';

/**
 * Three sides: what was there, what was planned, and what arrived. What arrived is compared with what was
 * planned; where the plan differs from the source and arrived so, it was on purpose.
 */
export function comparePlanned(
  source: Holding,
  planned: Holding,
  arrived: Holding,
  options: MatchOptions = {},
): { readonly comparison: Comparison; readonly onPurpose: readonly OnPurpose[] } {
  const comparison = compareHoldings(planned, arrived, options);
  const altered = new Set([
    ...comparison.pairs.flatMap((p) => p.differences.map((d) => placeOf('item', p.source, d))),
    ...comparison.containers.flatMap((c) => c.differences.map((d) => placeOf(c.kind, c.source ?? '', d))),
  ]);
  const missing = new Set([
    ...comparison.missing.map((m) => `item ${m.id}`),
    ...comparison.containers.flatMap((c) => (c.state === 'missing' ? [`${c.kind} ${c.source ?? ''}`] : [])),
  ]);
  const extra = new Set([
    ...comparison.extra.map((e) => `item ${e.id}`),
    ...comparison.containers.flatMap((c) => (c.state === 'extra' ? [`${c.kind} ${c.arrived ?? ''}`] : [])),
  ]);
  const onPurpose = plannedChanges(source, planned).filter(
    ({ kind, node, difference }) =>
      !altered.has(placeOf(kind, node, difference)) &&
      !missing.has(`${kind} ${node}`) &&
      !(isLeftOut(difference) && extra.has(`${kind} ${node}`)),
  );
  return { comparison, onPurpose };
}

const placeOf = (kind: string, node: string, { facet }: Difference): string => `${kind} ${node} ${facet}`;
const isLeftOut = ({ to }: Difference): boolean =>
  typeof to === 'object' && to !== null && 'words' in to && to.words === LEFT_OUT;

/** Everything in which a plan differs from its source, facet by facet; nodes have the same ids on both sides. */
export function plannedChanges(source: Holding, planned: Holding): OnPurpose[] {
  const now = new Map(planned.items.map((i) => [i.id, i]));
  const [from, to] = [fileContents(source), fileContents(planned)];
  const sameFiles = source.files === planned.files;
  const items = source.items.flatMap((item): OnPurpose[] => {
    const after = now.get(item.id);
    if (!after) return [{ kind: 'item', node: item.id, difference: leftOut(nameOf(item)) }];
    if (after === item && (sameFiles || item.files.length === 0)) return [];
    // A title where there was none is no loss to what arrives; here it is a change.
    const named = item.title === '' && after.title !== '' ? [difference('title', '', after.title)] : [];
    return [...named, ...compareItems(item, after, from, to)].map((d) => ({
      kind: 'item',
      node: item.id,
      difference: d,
    }));
  });
  const before = new Set(source.items.map((i) => i.id));
  const made = planned.items
    .filter((i) => !before.has(i.id))
    .map((i): OnPurpose => ({ kind: 'item', node: i.id, difference: madeNew(nameOf(i)) }));
  return [...items, ...made, ...containerChanges(source, planned, now)];
}

function containerChanges(source: Holding, planned: Holding, items: ReadonlyMap<string, Item>): OnPurpose[] {
  const changed =
    source.quizzes !== planned.quizzes || source.banks !== planned.banks || source.items !== planned.items;
  const reports: ContainerReport[] = [
    ...(changed
      ? compareContainers({
          source,
          arrived: planned,
          items: new Map(source.items.flatMap((i) => (items.has(i.id) ? [[i.id, i.id] as const] : []))),
        })
      : []),
    ...(source.rubrics === planned.rubrics ? [] : compareRubrics(source.rubrics, planned.rubrics)),
  ];
  const titles = new Map(
    [...source.quizzes, ...source.banks, ...source.rubrics].map((c) => [c.id, c.title || c.id]),
  );
  return reports.flatMap(({ kind, source: node, state, differences }): OnPurpose[] => {
    if (node === null) return [];
    if (state === 'missing') return [{ kind, node, difference: leftOut(titles.get(node) ?? node) }];
    return differences.map((d) => ({ kind, node, difference: d }));
  });
}

const madeNew = (title: string): Difference => ({
  facet: 'membership',
  from: { words: '' },
  to: { words: title },
  example: null,
});

const leftOut = (title: string): Difference => ({
  facet: 'membership',
  from: { words: title },
  to: { words: LEFT_OUT },
  example: null,
});
