import type { Holding, Item } from '../model/holding.ts';
import { UNNAMED } from '../model/plainText.ts';
import { outlineOfPackage, outlineThing } from '../landing/outline.ts';
import type { CourseOutline, ThingKind } from '../landing/types.ts';
import { selectFrom, type Dependency, type HoldingOf, type SelectedItem } from '../writing/select.ts';
import { totalPoints } from './pouch.ts';
import { chosenFrom, tickId, type NodeKind, type Tick } from './ticks.ts';

/** A holding without its items. */
export type Tree = Omit<Holding, 'items'>;

/** What the ticks bring along and what they leave behind. */
export interface ContentsView {
  readonly items: number;
  readonly points: number;
  /** Items of the whole source. */
  readonly total: number;
  readonly rubrics: number;
  readonly rubricsTotal: number;
  /** Banks and rubrics that come along without having been ticked. */
  readonly dependencies: readonly Dependency[];
  /** Banks left behind knowingly, and what becomes of the draws from them. */
  readonly broken: readonly { readonly bank: string; readonly quiz: string; readonly pick: number }[];
  /** Rubrics left behind knowingly, and the id of an item that then has none. */
  readonly ungraded: readonly { readonly rubric: string; readonly item: string }[];
  /** Quizzes, banks, links and rubrics that do not go. */
  readonly behind: readonly { readonly kind: NodeKind; readonly title: string; readonly id: string }[];
  /** Ids of the items that do not go. */
  readonly itemsBehind: readonly string[];
}

/** What contents ask of an item: lists know it without reading the item itself. */
export type ContentsItem = SelectedItem & Pick<Item, 'points'>;

/** What goes of a source when this is ticked, what comes along, and what does not go. */
export function contentsOf(source: HoldingOf<ContentsItem>, ticks: readonly Tick[]): ContentsView {
  const { holding: chosen, dependencies } = selectFrom(source, chosenFrom(ticks), ['bank', 'rubric']);
  const all = new Set(ticks.map(tickId));
  const ticked = (kind: NodeKind, nodeId: string): boolean => all.has(tickId({ kind, nodeId }));
  const quizzes = new Set(chosen.quizzes.map((q) => q.id));
  return {
    items: chosen.items.length,
    points: totalPoints(chosen.items),
    total: source.items.length,
    rubrics: chosen.rubrics.length,
    rubricsTotal: source.rubrics.length,
    dependencies,
    ungraded: source.rubrics
      .filter((r) => ticked('without-rubric', r.id))
      .flatMap((r) => {
        const item = chosen.items.find((i) => r.attachedTo.includes(i.id));
        return item ? [{ rubric: r.id, item: item.id }] : [];
      }),
    broken: source.quizzes
      .filter((q) => quizzes.has(q.id))
      .flatMap((q) =>
        q.sections.flatMap(({ draw }) =>
          draw?.bank && ticked('without', draw.bank)
            ? [{ bank: draw.bank, quiz: q.title || UNNAMED.quiz, pick: draw.pick }]
            : [],
        ),
      ),
    behind: [
      ...left('quiz', source.quizzes, chosen.quizzes, (q) => q.title || UNNAMED.quiz),
      ...left('bank', source.banks, chosen.banks, (b) => b.title || 'without a name'),
      ...left('link', source.links, chosen.links, (l) => l.title || l.url),
      ...left('rubric', source.rubrics, chosen.rubrics, (r) => r.title || UNNAMED.rubric),
    ],
    itemsBehind: notAmong(source.items, chosen.items).map((i) => i.id),
  };
}

function left<T extends { readonly id: string }>(
  kind: NodeKind,
  all: readonly T[],
  going: readonly T[],
  title: (node: T) => string,
): ContentsView['behind'] {
  return notAmong(all, going).map((x) => ({ kind, id: x.id, title: title(x) }));
}

/** @param going some of all, in the same order */
function notAmong<T extends { readonly id: string }>(all: readonly T[], going: readonly T[]): T[] {
  let next = 0;
  return all.filter(({ id }) => {
    if (going[next]?.id !== id) return true;
    next += 1;
    return false;
  });
}

/** Things that stand together in the source: its sections, or the folders of a package. */
export interface ThingGroup {
  readonly id: string;
  readonly name: string;
  readonly nodes: readonly Tick[];
}

/**
 * The things of a source by where they stand.
 * @param outline what its course says; null for a package on its own
 */
export function groupsOf(tree: Tree, outline: CourseOutline | null): ThingGroup[] {
  const from = outline ?? outlineOfPackage(tree);
  const sectionOf = (kind: ThingKind, x: { id: string; title: string }): string =>
    outlineThing(from, kind, x.id, x.title)?.section ?? '';
  const placed = (kind: 'quiz' | 'bank' | 'link', list: readonly { id: string; title: string }[]) =>
    list.map((x) => ({ kind, nodeId: x.id, section: sectionOf(kind, x) }));
  const nodes = [
    ...placed('quiz', tree.quizzes),
    ...placed('bank', tree.banks),
    ...placed('link', tree.links),
    ...tree.rubrics.map((r) => ({ kind: 'rubric' as const, nodeId: r.id, section: '' })),
  ];
  const group = (id: string, name: string, of: typeof nodes): ThingGroup => ({
    id,
    name,
    nodes: of.map(({ kind, nodeId }) => ({ kind, nodeId })),
  });
  const outside = nodes.filter((n) => n.section === '');
  const of = (...kinds: ThingKind[]): typeof nodes => outside.filter((n) => kinds.includes(n.kind));
  return [
    ...from.sections.map((s) =>
      group(
        `section ${s.id}`,
        s.name,
        nodes.filter((n) => n.section === s.id),
      ),
    ),
    group(
      'outside',
      from.sections.length > 0 ? 'Outside of sections' : 'Quizzes and links',
      of('quiz', 'link'),
    ),
    group('banks', 'Question banks', of('bank')),
    group('rubrics', 'Rubrics', of('rubric')),
  ].filter((g) => g.nodes.length > 0);
}
