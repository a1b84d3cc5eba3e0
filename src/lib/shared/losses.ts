import type { SpokenFinding } from '@alforja/core';
import type { ForecastLoss } from './transfers.ts';

/** What a format loses, by sort; of many places with the same words a page brings the first. */

/** What is lost, by sort. */
const SORTS: Readonly<Record<string, string>> = {
  'loss-kind': 'Kinds of questions',
  'loss-scoring': 'Scoring',
  'loss-draw': 'Draws',
  'loss-bank': 'Banks',
  'loss-feedback': 'Feedback',
  'loss-settings': 'Settings',
  'loss-section': 'Sections',
  'loss-metadata': 'Metadata',
  'rubric-not-taken': 'Rubrics',
};
const OTHERS = 'Others';

export type Avoidance = NonNullable<ForecastLoss['avoid']>;

/** Where something is lost. */
export interface LossPlace {
  readonly node: string;
  /** What that is called, and where it stands where it is an item. */
  readonly name: string;
  readonly seq: number | null;
  readonly avoid: Avoidance | null;
}

/** The same words for several things. */
export interface LossGroup {
  readonly found: Pick<SpokenFinding, 'code' | 'severity' | 'message' | 'hint'>;
  readonly count: number;
  /** How many of them are about one thing, and the first of those. */
  readonly placed: number;
  readonly places: readonly LossPlace[];
  /** What avoids some of them. */
  readonly avoid: readonly Avoidance[];
}

export interface LossSort {
  readonly name: string;
  /** How many losses there are of it. */
  readonly count: number;
  readonly groups: readonly LossGroup[];
  /** How many other groups there are. */
  readonly more: number;
}

export interface LossList {
  readonly count: number;
  readonly sorts: readonly LossSort[];
}

/** What is lost, and what only changes its form. */
export interface LossView {
  readonly real: LossList;
  readonly notes: LossList;
  /** Draws whose settings somebody has to look at. */
  readonly draws: number;
}

const ORDER = { error: 0, warning: 1, note: 2 } as const;
/** Groups of a sort, and places of a group, that come with a page. */
const MOST_GROUPS = 40;
const MOST_PLACES = 40;
/** Places that come with a page in all. */
const MOST_IN_ALL = 1200;

/** What things are called by their ids. */
export type Named = (id: string) => { readonly name: string; readonly seq: number | null };

/** The things that a page names: of each group the first. */
export const namedOf = (losses: readonly ForecastLoss[]): string[] => {
  const nodes = new Set<string>();
  lossView(losses, (id) => {
    nodes.add(id);
    return { name: id, seq: null };
  });
  return [...nodes];
};

/** Losses by sort, those with the worst first; within a sort, by their words. */
export function lossView(losses: readonly ForecastLoss[], named: Named): LossView {
  const budget = { places: MOST_IN_ALL };
  const list = (of: readonly ForecastLoss[]): LossList => ({
    count: of.length,
    sorts: lossSorts(of, named, budget),
  });
  return {
    real: list(losses.filter((l) => l.severity !== 'note')),
    notes: list(losses.filter((l) => l.severity === 'note')),
    draws: losses.filter((l) => l.severity === 'note' && l.code === 'loss-draw').length,
  };
}

function lossSorts(losses: readonly ForecastLoss[], named: Named, budget: { places: number }): LossSort[] {
  const sorts = new Map<string, Map<string, ForecastLoss[]>>();
  const counts = new Map<string, number>();
  for (const found of losses) {
    const name = SORTS[found.code] ?? OTHERS;
    const groups = sorts.get(name) ?? new Map<string, ForecastLoss[]>();
    sorts.set(name, groups);
    counts.set(name, (counts.get(name) ?? 0) + 1);
    if (groups.has(found.message)) groups.get(found.message)!.push(found);
    else groups.set(found.message, [found]);
  }
  const worst = ([, groups]: readonly [string, ReadonlyMap<string, ForecastLoss[]>]): number =>
    [...groups.values()].reduce((least, [first]) => Math.min(least, ORDER[first!.severity]), 2);
  return [...sorts]
    .map((sort) => ({ sort, worst: worst(sort), count: counts.get(sort[0])! }))
    .sort((a, b) => a.worst - b.worst || b.count - a.count)
    .map(({ sort: [name, groups], count }) => {
      const ordered = [...groups.values()].sort(([a], [b]) => ORDER[a!.severity] - ORDER[b!.severity]);
      const shown = ordered.slice(0, MOST_GROUPS).map((all) => lossGroup(all, named, budget));
      return { name, count, groups: shown, more: ordered.length - shown.length };
    });
}

function lossGroup(all: readonly ForecastLoss[], named: Named, budget: { places: number }): LossGroup {
  const { code, severity, message, hint } = all[0]!;
  const placed = all.filter((l) => l.where.node !== null);
  const shown = placed.slice(0, Math.min(MOST_PLACES, budget.places));
  budget.places -= shown.length;
  return {
    found: { code, severity, message, hint },
    count: all.length,
    placed: placed.length,
    places: shown.map(({ where, avoid = null }) => {
      const node = where.node!;
      return { node, ...named(node), avoid };
    }),
    avoid: all.flatMap((l) => l.avoid ?? []),
  };
}
