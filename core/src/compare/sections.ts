import equal from 'fast-deep-equal';
import type { Draw, Holding, Quiz, Section } from '../model/holding.ts';
import { composed } from '../model/composed.ts';
import { near, tidyNumber } from '../model/number.ts';
import { itemWeights } from '../model/places.ts';
import { inOwnDraw } from '../model/quizzes.ts';
import { difference, type Differences } from './differences.ts';
import { compareOrder, compareSets, inArrived, namesOf, NAMED, type Sides } from './members.ts';
import type { MembershipSaid, ShuffleSaid } from './said.ts';

/** A place among the items of a quiz: set to everybody, or drawn from. */
interface Place {
  readonly item: string;
  readonly weight: number;
}

/** A section as candidates meet it. */
interface Part {
  readonly title: string;
  readonly shuffle: boolean;
  readonly fixed: readonly Place[];
  readonly pool: readonly Place[];
  readonly draw: Draw | null;
}

/** Where every item of a quiz stands: in which section, in which order, for how much; and what is shuffled. */
export function compareSections(out: Differences, a: Quiz, b: Quiz, sides: Sides): void {
  const [left, right] = [partsOf(a), partsOf(b)];
  const [before, after] = [titlesOf(left), titlesOf(right)];
  out.add('sections', before, after);
  // Sections that answer to one another are compared one by one; else only the whole can be.
  const aligned = left.length === right.length && left.every((p, at) => p.title === right[at]!.title);
  const [from, to] = [shuffles(left, aligned), shuffles(right, aligned)];
  out.add('shuffle', from, to);
  const all = (parts: readonly Part[]): string[] =>
    parts.flatMap((p) => [...p.fixed, ...p.pool].map((x) => x.item));
  if (compareSets(out, all(left), all(right), sides)) return;
  if (aligned && compareParts(out, left, right, sides)) return;
  // Order says nothing of a section that either side shuffles, nor of what is drawn from.
  const loose = left.map((p, at) => aligned && (p.shuffle || right[at]!.shuffle));
  const inOrder = (parts: readonly Part[]): string[] =>
    parts.flatMap((p, at) => (loose[at] ? [] : p.fixed.map((x) => x.item)));
  compareOrder(out, inOrder(left), inOrder(right), sides);
  compareWorth(out, left, right, sides);
}

/** Empty sections are none; neighbours without a title that are asked in order are one. */
function partsOf(quiz: Quiz): Part[] {
  const parts: Part[] = [];
  for (const section of quiz.sections) {
    const part = partOf(section);
    const last = parts.at(-1);
    if (part.fixed.length === 0 && part.draw === null) continue;
    const plain = (p: Part): boolean => p.title === '' && !p.shuffle && p.draw === null;
    if (last && plain(last) && plain(part))
      parts[parts.length - 1] = { ...last, fixed: [...last.fixed, ...part.fixed] };
    else parts.push(part);
  }
  return parts;
}

const partOf = (section: Section): Part => ({
  title: composed(section.title),
  shuffle: section.shuffle,
  fixed: section.items.filter((r) => !inOwnDraw(section, r.item)),
  pool: (section.draw?.pool ?? []).map((item, at) => ({ item, weight: section.draw?.weights?.[at] ?? 1 })),
  draw: section.draw,
});

/** Without what repeats the one before it. */
const runs = <T>(list: readonly T[]): T[] => list.filter((x, at) => x !== list[at - 1]);

/** An untitled section and none at all are the same; so is the one section every cartridge has. */
const titlesOf = (parts: readonly Part[]): string[] =>
  runs(parts.map((p) => p.title)).filter((t) => t !== '');

const shuffles = (parts: readonly Part[], each: boolean): ShuffleSaid[] => {
  const all = parts.map((p) => p.shuffle);
  return (each ? all : runs(all)).map((shuffled) => ({ of: 'section', shuffled }));
};

/** Section by section: who stands in it. Says whether anything moved. */
function compareParts(
  out: Differences,
  left: readonly Part[],
  right: readonly Part[],
  sides: Sides,
): boolean {
  const placed = (parts: readonly Part[]): Map<string, string> =>
    new Map(
      parts.flatMap((p, at) => [
        ...p.fixed.map((x) => [x.item, `${at}`] as const),
        ...p.pool.map((x) => [x.item, `${at} drawn`] as const),
      ]),
    );
  const [from, to] = [placed(left), placed(right)];
  const moved = [...from.keys()].filter((id) => from.get(id) !== to.get(sides.items.get(id) ?? ''));
  if (moved.length === 0) return false;
  const said = (
    ids: readonly string[],
    of: ReadonlyMap<string, string>,
    holding: Holding,
  ): MembershipSaid => ({
    placed: namesOf(ids, holding.items).map((item, at) => ({
      item,
      section: left[Number.parseInt(of.get(ids[at]!) ?? '', 10)]?.title ?? '',
    })),
  });
  const there = inArrived(moved, sides);
  out.list.push(difference('membership', said(moved, from, sides.source), said(there, to, sides.arrived)));
  return true;
}

/** What an item is worth at each place, beside what it is worth at its first. */
function compareWorth(out: Differences, left: readonly Part[], right: readonly Part[], sides: Sides): void {
  const worth = (parts: readonly Part[], holding: Holding) => {
    const weights = itemWeights(holding.quizzes);
    const points = new Map(holding.items.map((i) => [i.id, i.points]));
    return parts.flatMap((p) =>
      [...p.fixed, ...(p.draw?.weights ? p.pool : [])].map(({ item, weight }) => {
        const times = weight / (weights.get(item) || 1);
        return { item, times, points: tidyNumber((points.get(item) ?? 0) * times) };
      }),
    );
  };
  const [from, to] = [worth(left, sides.source), worth(right, sides.arrived)];
  // An item may stand at several places: the first answers to the first, and so on.
  const there = new Map<string, typeof to>();
  for (const w of to) there.set(w.item, [...(there.get(w.item) ?? []), w]);
  const pairs = from.flatMap((w) => {
    const other = there.get(sides.items.get(w.item) ?? '')?.shift();
    return other && !near(w.times, other.times) ? [[w, other] as const] : [];
  });
  if (pairs.length === 0) return;
  const said = (of: readonly { item: string; points: number }[], holding: Holding): MembershipSaid => ({
    worth: of
      .slice(0, NAMED)
      .map(({ item, points }) => ({ item: namesOf([item], holding.items)[0]!, points })),
  });
  const [mine, theirs] = [
    said(
      pairs.map(([w]) => w),
      sides.source,
    ),
    said(
      pairs.map(([, w]) => w),
      sides.arrived,
    ),
  ];
  if (!equal(mine, theirs)) out.list.push(difference('membership', mine, theirs));
}
