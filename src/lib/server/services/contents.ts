import {
  nameOf,
  outlineOfPackage,
  outlineThing,
  selectFrom,
  withOutline,
  type CourseOutline,
  type Holding,
  type ThingKind,
} from '@alforja/core';
import type { ContentsView, NodeKind, ThingGroup, Tick, Tree } from '../../shared/types.ts';
import { chosenFrom } from '../jobs/tasks.ts';
import { lookById } from './courses.ts';
import { allItems, packageById } from './packages.ts';
import type { TransferRow } from './transfers.ts';

/** What a transfer takes from: the package without its items, and what the course it came from says beside it. */
export async function sourceTree(
  transfer: Pick<TransferRow, 'packageId' | 'sourceSnapshot'>,
): Promise<Tree | null> {
  const tree = (await packageById(transfer.packageId))?.tree ?? null;
  const look = transfer.sourceSnapshot ? await lookById(transfer.sourceSnapshot) : null;
  return tree && look ? treeWith(tree, look.outline) : tree;
}

/** What a course calls its things goes before what their files are called; its rubrics stand beside them. */
export const treeWith = (tree: Tree, outline: CourseOutline): Tree => {
  const { items: _, ...said } = withOutline({ ...tree, items: [] }, outline);
  return said;
};

export async function contentsOf(
  packageId: string,
  tree: Tree,
  given: readonly Tick[],
): Promise<ContentsView> {
  const items = await allItems(packageId);
  const holding: Holding = { ...tree, items };
  const { holding: chosen, dependencies } = selectFrom(holding, chosenFrom(given));
  const going = {
    quiz: new Set(chosen.quizzes.map((q) => q.id)),
    bank: new Set(chosen.banks.map((b) => b.id)),
    item: new Set(chosen.items.map((i) => i.id)),
    link: new Set(chosen.links.map((l) => l.id)),
    rubric: new Set(chosen.rubrics.map((r) => r.id)),
    without: new Set<string>(),
    'without-rubric': new Set<string>(),
  };
  const left = <T extends { id: string; title: string }>(
    kind: NodeKind,
    all: readonly T[],
    name: (x: T) => string,
  ) => all.filter((x) => !going[kind].has(x.id)).map((x) => ({ kind, id: x.id, title: name(x) }));
  return {
    items: chosen.items.length,
    points: Number(chosen.items.reduce((sum, i) => sum + i.points, 0).toPrecision(12)),
    total: items.length,
    rubrics: chosen.rubrics.length,
    rubricsTotal: tree.rubrics.length,
    dependencies,
    ungraded: holding.rubrics
      .filter((r) => given.some((t) => t.kind === 'without-rubric' && t.nodeId === r.id))
      .flatMap((r) => {
        const item = chosen.items.find((i) => r.attachedTo.includes(i.id));
        return item ? [{ rubric: r.id, item: nameOf(item) }] : [];
      }),
    broken: tree.quizzes
      .filter((q) => going.quiz.has(q.id))
      .flatMap((q) =>
        q.sections.flatMap(({ draw }) =>
          draw?.bank && given.some((t) => t.kind === 'without' && t.nodeId === draw.bank)
            ? [{ bank: draw.bank, quiz: q.title || q.id, pick: draw.pick }]
            : [],
        ),
      ),
    behind: [
      ...left('quiz', tree.quizzes, (q) => q.title || q.id),
      ...left('bank', tree.banks, (b) => b.title || 'without a name'),
      ...left('link', tree.links, (l) => l.title || l.url),
      ...left('rubric', tree.rubrics, (r) => r.title || r.id),
      ...left('item', items, (i) => i.title || i.id),
    ],
  };
}

export function groupsOf(tree: Tree, outline: CourseOutline | null): ThingGroup[] {
  const from = outline ?? outlineOfPackage(tree);
  const sectionOf = (kind: ThingKind, x: { id: string; title: string }): string =>
    outlineThing(from, kind, x.id, x.title)?.section ?? '';
  const nodes = [
    ...tree.quizzes.map((q) => ({ kind: 'quiz' as const, nodeId: q.id, section: sectionOf('quiz', q) })),
    ...tree.banks.map((b) => ({ kind: 'bank' as const, nodeId: b.id, section: sectionOf('bank', b) })),
    ...tree.links.map((l) => ({ kind: 'link' as const, nodeId: l.id, section: sectionOf('link', l) })),
    ...tree.rubrics.map((r) => ({ kind: 'rubric' as const, nodeId: r.id, section: '' })),
  ];
  const group = (id: string, name: string, of: typeof nodes): ThingGroup => ({
    id,
    name,
    nodes: of.map(({ kind, nodeId }) => ({ kind, nodeId })),
  });
  const outside = nodes.filter((n) => n.section === '');
  const rubrics = outside.filter((n) => n.kind === 'rubric');
  const banks = outside.filter((n) => n.kind === 'bank');
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
      outside.filter((n) => n.kind !== 'bank' && n.kind !== 'rubric'),
    ),
    group('banks', 'Question banks', banks),
    group('rubrics', 'Rubrics', rubrics),
  ].filter((g) => g.nodes.length > 0);
}
