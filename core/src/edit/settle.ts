import type { Draw, Holding, Item, OutlineNode, Quiz, Section } from '../model/holding.ts';
import { near } from '../model/number.ts';
import { itemWeights } from '../model/places.ts';
import { poolPoints, quizItems, shufflesChoices, shufflesIn, shufflesItems } from '../model/quizzes.ts';
import type { Editing } from './editing.ts';
import { syncTest } from './testSync.ts';

/**
 * The holding as it will go: what is left out is gone, and what follows from the edits has followed: pools from
 * their banks, picks and points of draws, totals, the structures of tests. Done once at the end, so that the
 * order of edits on different things does not matter.
 */
export function settle(editing: Editing): Holding {
  const { source } = editing;
  const moved = editing.movedBanks();
  const banks = new Map([...moved].filter(([id]) => !editing.leftOut.bank.has(id)));
  const quizzes = [...editing.quizzes.values()]
    .filter((q) => !editing.leftOut.quiz.has(q.id))
    .map((q) => followBanks(q, moved, editing.leftOut.bank));
  const gone = goneItems(editing, quizzes, banks, moved);
  const items = new Map([...editing.items].filter(([id]) => !gone.has(id)));
  const before = new Map(source.quizzes.map((q) => [q.id, q]));
  const weeded = gone.size === 0 ? quizzes : quizzes.map((q) => weed(q, gone));
  const weights = itemWeights(weeded);
  const facts: Facts = {
    editing,
    items,
    weights,
    sourceItems: new Map(source.items.map((i) => [i.id, i])),
    sourceWeights: itemWeights(source.quizzes),
  };
  const untouched = [...items].every(([id, item]) => facts.sourceItems.get(id) === item);
  const settled = weeded.map((quiz) => {
    const was = before.get(quiz.id);
    if (untouched && was === quiz) return quiz;
    const priced = priceDraws(quiz, was, facts);
    const settings = {
      ...priced.settings,
      shuffleItems: shufflesItems(priced.sections),
      shuffleChoices: shufflesChoices(priced, shufflesIn(items)),
    };
    const next = { ...priced, settings };
    return was ? { ...next, test: syncTest(was, next) } : next;
  });
  const out = new Set([
    ...editing.leftOut.quiz,
    ...editing.leftOut.bank,
    ...editing.leftOut.link,
    ...source.banks.map((b) => b.id).filter((id) => !editing.banks.has(id)),
  ]);
  const files = keptFiles(editing, items, gone);
  const rubrics = [...editing.rubrics.values()].filter((r) => !editing.leftOut.rubric.has(r.id));
  const stays = (id: string): boolean => !gone.has(id) && !editing.leftOut.quiz.has(id);
  return {
    ...source,
    quizzes: settled,
    banks: [...banks.values()].map((b) =>
      b.items.some((id) => gone.has(id)) ? { ...b, items: b.items.filter((id) => !gone.has(id)) } : b,
    ),
    items: [...items.values()],
    rubrics: rubrics.map((r) =>
      r.attachedTo.every(stays) ? r : { ...r, attachedTo: r.attachedTo.filter(stays) },
    ),
    links: [...editing.links.values()].filter((l) => !editing.leftOut.link.has(l.id)),
    files,
    outline: out.size === 0 ? source.outline : prune(source.outline, out),
  };
}

interface Facts {
  readonly editing: Editing;
  readonly items: ReadonlyMap<string, Item>;
  readonly weights: ReadonlyMap<string, number>;
  readonly sourceItems: ReadonlyMap<string, Item>;
  readonly sourceWeights: ReadonlyMap<string, number>;
}

/** A draw from a bank draws from what is in it; where the bank is left out, from the same items all the same. */
function followBanks(
  quiz: Quiz,
  banks: ReadonlyMap<string, { readonly items: readonly string[] }>,
  out: ReadonlySet<string>,
): Quiz {
  const follow = (s: Section): Section => {
    if (!s.draw || s.draw.bank === null) return s;
    const bank = banks.get(s.draw.bank);
    const pool = bank?.items ?? s.draw.pool;
    const lost = !bank || out.has(s.draw.bank);
    if (!lost && (pool === s.draw.pool || sameList(pool, s.draw.pool))) return s;
    return { ...s, draw: { ...s.draw, bank: lost ? null : s.draw.bank, pool, weights: null } };
  };
  const sections = quiz.sections.map(follow);
  return sections.every((s, at) => s === quiz.sections[at]) ? quiz : { ...quiz, sections };
}

const sameList = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((x, at) => x === b[at]);

/** Items left out by themselves, and those that stand only in quizzes and banks that are left out. */
function goneItems(
  editing: Editing,
  quizzes: readonly Quiz[],
  banks: ReadonlyMap<string, { readonly items: readonly string[] }>,
  moved: ReadonlyMap<string, { readonly items: readonly string[] }>,
): ReadonlySet<string> {
  const { leftOut } = editing;
  const gone = new Set(leftOut.item);
  if (leftOut.quiz.size + leftOut.bank.size === 0) return gone;
  const held = new Set([...quizzes.flatMap(quizItems), ...[...banks.values()].flatMap((b) => b.items)]);
  const went = [
    ...[...leftOut.quiz].flatMap((id) => quizItems(editing.quizzes.get(id)!)),
    ...[...leftOut.bank].flatMap((id) => moved.get(id)?.items ?? []),
  ];
  for (const id of went) if (!held.has(id)) gone.add(id);
  return gone;
}

/** A quiz without items that are gone; nobody can draw more than there is. */
function weed(quiz: Quiz, gone: ReadonlySet<string>): Quiz {
  if (!quizItems(quiz).some((id) => gone.has(id))) return quiz;
  const sections = quiz.sections.flatMap((s): Section[] => {
    const items = s.items.filter((r) => !gone.has(r.item));
    const draw = s.draw && weedDraw(s.draw, gone);
    const had = s.items.length > 0 || s.draw !== null;
    return had && items.length === 0 && draw === null ? [] : [{ ...s, items, draw }];
  });
  return { ...quiz, sections };
}

function weedDraw(draw: Draw, gone: ReadonlySet<string>): Draw | null {
  const kept = draw.pool.flatMap((id, at) => (gone.has(id) ? [] : [at]));
  if (kept.length === 0) return null;
  if (kept.length === draw.pool.length) return draw;
  return {
    ...draw,
    pool: kept.map((at) => draw.pool[at]!),
    weights: draw.weights && kept.map((at) => draw.weights![at]!),
    pick: draw.withReplacement ? draw.pick : Math.min(draw.pick, kept.length),
  };
}

/** Points of a draw that only its items' points have given follow these; what somebody has said stands. */
function priceDraws(quiz: Quiz, was: Quiz | undefined, facts: Facts): Quiz {
  const price = (s: Section): Section => {
    const { draw } = s;
    if (!draw) return s;
    const said = facts.editing.drawn.get(`${quiz.id}\u0001${s.id}`) ?? false;
    const before = was?.sections.find((x) => x.id === s.id)?.draw;
    const followed =
      Number.isNaN(draw.pointsEach) ||
      (!said &&
        before !== undefined &&
        before !== null &&
        near(before.pointsEach, draw.pointsEach) &&
        near(before.pointsEach, poolPoints(before, facts.sourceItems, facts.sourceWeights)));
    if (!followed) return s;
    const pointsEach = poolPoints(draw, facts.items, facts.weights);
    return near(pointsEach, draw.pointsEach) ? s : { ...s, draw: { ...draw, pointsEach } };
  };
  const sections = quiz.sections.map(price);
  return sections.every((s, at) => s === quiz.sections[at]) ? quiz : { ...quiz, sections };
}

/** Files that only what is gone has shown go with it. */
function keptFiles(
  editing: Editing,
  items: ReadonlyMap<string, Item>,
  gone: ReadonlySet<string>,
): Holding['files'] {
  const files = [...editing.files.values()];
  if (gone.size === 0) return files;
  const used = new Set([...items.values()].flatMap((i) => i.files.map((f) => f.path)));
  const went = new Set([...gone].flatMap((id) => editing.items.get(id)?.files.map((f) => f.path) ?? []));
  return files.filter((f) => used.has(f.path) || !went.has(f.path));
}

const prune = (nodes: readonly OutlineNode[], out: ReadonlySet<string>): OutlineNode[] =>
  nodes.flatMap((node) => {
    const children = prune(node.children, out);
    const gone = node.refers !== null && out.has(node.refers);
    return gone && children.length === 0 ? [] : [{ ...node, refers: gone ? null : node.refers, children }];
  });
