import { fixedDraw } from '../fit/draws.ts';
import { itemPlaces, type ItemPlaces } from '../model/itemPlaces.ts';
import { ItemSet } from '../model/itemSet.ts';
import { fixedItems, looseIds } from '../model/quizzes.ts';
import type { Holding, Item, OutlineNode, Quiz } from '../model/holding.ts';

/** Why a thing comes along although it was not chosen itself. */
export interface Dependency {
  readonly kind: 'bank' | 'item' | 'file' | 'rubric';
  readonly id: string;
  readonly neededBy: string;
  readonly reason: 'drawn-from' | 'in-quiz' | 'in-bank' | 'used-by-item' | 'grades-it';
}

/** What was chosen, by kind: ids of different kinds may be the same. */
export interface Chosen {
  readonly quizzes: ReadonlySet<string>;
  readonly banks: ReadonlySet<string>;
  readonly items: ReadonlySet<string>;
  readonly links: ReadonlySet<string>;
  readonly rubrics?: ReadonlySet<string>;
  /** Every item that stands in no quiz and no bank, but for `withoutItems`. */
  readonly loose?: boolean;
  readonly withoutItems?: ReadonlySet<string>;
  /** Banks that are left behind though a quiz draws from them: what it draws becomes fixed items. */
  readonly without?: ReadonlySet<string>;
  /** Rubrics that are left behind though an item that goes is graded by them. */
  readonly withoutRubrics?: ReadonlySet<string>;
}

/** What choosing asks of an item. */
export type SelectedItem = Pick<Item, 'id' | 'files'>;
/** A holding, of whose items more or less is known. */
export type HoldingOf<I> = Omit<Holding, 'items'> & { readonly items: readonly I[] };

interface Selected<I> {
  readonly holding: HoldingOf<I>;
  readonly dependencies: readonly Dependency[];
}

/**
 * The part of a holding that was chosen, closed under what it needs: a quiz brings its items and the banks it
 * draws from, a bank its items, an item its files and the rubric it is graded by. A bank that is only partly
 * chosen keeps the chosen items.
 * @param told of which kinds it is said why they come along: items and files may be very many
 */
export function selectFrom<I extends SelectedItem>(
  holding: HoldingOf<I>,
  chosen: Chosen,
  told: readonly Dependency['kind'][] = ['bank', 'item', 'file', 'rubric'],
): Selected<I> {
  const dependencies: Dependency[] = [];
  const banks = new Set(holding.banks.filter((b) => chosen.banks.has(b.id)).map((b) => b.id));
  const places = itemPlaces(holding.items);
  const items = new ItemSet(places);
  for (const id of chosen.items) if (places.at(id) !== undefined) items.add(id);
  if (chosen.loose) for (const id of looseOf(holding, places, chosen.withoutItems)) items.add(id);
  const tells = new Set(told);
  const tell = (dependency: Dependency): void => {
    if (tells.has(dependency.kind)) dependencies.push(dependency);
  };
  const need = (set: Set<string>, dependency: Dependency): void => {
    if (set.has(dependency.id)) return;
    set.add(dependency.id);
    tell(dependency);
  };
  const needItems = (ids: readonly string[], neededBy: string, reason: Dependency['reason']): void =>
    items.addAll(ids, tells.has('item') ? (id) => tell({ kind: 'item', id, neededBy, reason }) : undefined);
  const quizzes = holding.quizzes
    .filter((q) => chosen.quizzes.has(q.id))
    .map((q) => withoutBanks(q, chosen.without ?? new Set()));
  for (const quiz of quizzes) {
    for (const section of quiz.sections) {
      needItems(
        section.items.map((ref) => ref.item),
        quiz.id,
        'in-quiz',
      );
      const { draw } = section;
      if (!draw) continue;
      const { bank, pool } = draw;
      if (bank !== null) need(banks, { kind: 'bank', id: bank, neededBy: quiz.id, reason: 'drawn-from' });
      needItems(pool, bank ?? quiz.id, 'drawn-from');
    }
  }
  const wholeBanks = new Set(banks);
  for (const bank of holding.banks) if (wholeBanks.has(bank.id)) needItems(bank.items, bank.id, 'in-bank');
  // Items chosen one by one keep the bank they stand in, with just those items.
  const inQuiz = new Set(quizzes.flatMap(fixedItems));
  const partial = new Set(
    holding.banks.filter(
      (b) =>
        chosen.items.size > 0 &&
        !wholeBanks.has(b.id) &&
        b.items.some((id) => chosen.items.has(id) && !inQuiz.has(id)),
    ),
  );
  const keptItems = items.among(holding.items);
  const files = new Set<string>();
  for (const { id: neededBy, files: shown } of keptItems) {
    for (const { present, path: id } of shown)
      if (present) need(files, { kind: 'file', id, neededBy, reason: 'used-by-item' });
  }
  const rubrics = new Set(holding.rubrics.filter((r) => chosen.rubrics?.has(r.id)).map((r) => r.id));
  const quizIds = new Set(quizzes.map((q) => q.id));
  const goes = (id: string): boolean => items.has(id) || quizIds.has(id);
  for (const { id, attachedTo } of holding.rubrics) {
    const neededBy = attachedTo.find(goes);
    if (neededBy !== undefined && !chosen.withoutRubrics?.has(id))
      need(rubrics, { kind: 'rubric', id, neededBy, reason: 'grades-it' });
  }
  const refers = new Set([
    ...quizIds,
    ...banks,
    ...holding.links.filter((l) => chosen.links.has(l.id)).map((l) => l.id),
  ]);
  return {
    holding: {
      ...holding,
      quizzes,
      banks: holding.banks
        .filter((b) => wholeBanks.has(b.id) || partial.has(b))
        .map((b) => (wholeBanks.has(b.id) ? b : { ...b, items: b.items.filter((id) => items.has(id)) })),
      items: keptItems,
      links: holding.links.filter((l) => chosen.links.has(l.id)),
      rubrics: holding.rubrics
        .filter((r) => rubrics.has(r.id))
        .map((r) => ({ ...r, attachedTo: r.attachedTo.filter(goes) })),
      files: holding.files.filter((f) => files.has(f.path)),
      outline: prune(holding.outline, refers),
      findings: [],
    },
    dependencies,
  };
}

const looseOf = (
  holding: HoldingOf<SelectedItem>,
  places: ItemPlaces,
  without: ReadonlySet<string> = new Set(),
): readonly string[] =>
  looseIds(
    holding,
    holding.items.map((i) => i.id),
    places,
  ).filter((id) => !without.has(id));

/** Everything: every quiz, bank, item, link and file. */
export function everything(holding: Holding): Selected<Item> {
  return { holding: { ...holding, findings: [] }, dependencies: [] };
}

/** A quiz that draws from none of these banks; its test structure no longer holds where one was left out. */
function withoutBanks(quiz: Quiz, left: ReadonlySet<string>): Quiz {
  if (!quiz.sections.some((s) => s.draw !== null && left.has(s.draw.bank ?? ''))) return quiz;
  return {
    ...quiz,
    test: null,
    sections: quiz.sections.map((s) =>
      s.draw && left.has(s.draw.bank ?? '') ? fixedDraw(s, s.draw).section : s,
    ),
  };
}

function prune(nodes: readonly OutlineNode[], refers: ReadonlySet<string>): OutlineNode[] {
  return nodes.flatMap((node) => {
    const children = prune(node.children, refers);
    return children.length > 0 || (node.refers !== null && refers.has(node.refers))
      ? [{ ...node, children }]
      : [];
  });
}

/**
 * What `--only` names mean: an id, or a title that only one thing has. Names that mean nothing, or several
 * things, come back.
 */
export function chooseByName(
  holding: Holding,
  names: readonly string[],
): { chosen: Chosen; unknown: string[]; ambiguous: string[] } {
  const chosen = {
    quizzes: new Set<string>(),
    banks: new Set<string>(),
    items: new Set<string>(),
    links: new Set<string>(),
    rubrics: new Set<string>(),
  };
  const kinds = Object.keys(chosen) as (keyof typeof chosen)[];
  const unknown: string[] = [];
  const ambiguous: string[] = [];
  for (const name of names) {
    const all = kinds.flatMap((kind) => holding[kind].map(({ id, title }) => ({ kind, id, title })));
    const exact = all.filter((x) => x.id === name);
    const titled = exact.length > 0 ? exact : all.filter((x) => x.title === name);
    if (titled.length === 0) unknown.push(name);
    else if (exact.length === 0 && titled.length > 1) ambiguous.push(name);
    else titled.forEach((x) => chosen[x.kind].add(x.id));
  }
  return { chosen, unknown, ambiguous };
}
