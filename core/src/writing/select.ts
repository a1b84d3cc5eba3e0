import type { Holding, OutlineNode } from '../model/holding.ts';
import { walk } from '../model/visit.ts';

/** Why a thing comes along although it was not chosen itself. */
export interface Dependency {
  readonly kind: 'bank' | 'item' | 'file';
  readonly id: string;
  readonly neededBy: string;
  readonly reason: 'drawn-from' | 'in-quiz' | 'in-bank' | 'used-by-item';
}

export interface Selected {
  readonly holding: Holding;
  readonly dependencies: readonly Dependency[];
}

/**
 * The part of a holding that was chosen, closed under what it needs: a quiz brings its items and the banks it
 * draws from, a bank its items, an item its files. A bank that is only partly chosen keeps the chosen items.
 * @param chosen ids of quizzes, banks, items and links
 */
export function selectFrom(holding: Holding, chosen: ReadonlySet<string>): Selected {
  const dependencies: Dependency[] = [];
  const banks = new Set(holding.banks.filter((b) => chosen.has(b.id)).map((b) => b.id));
  const items = new Set(holding.items.filter((i) => chosen.has(i.id)).map((i) => i.id));
  const need = (set: Set<string>, id: string, dependency: Omit<Dependency, 'id'>): void => {
    if (set.has(id)) return;
    set.add(id);
    dependencies.push({ ...dependency, id });
  };
  const quizzes = holding.quizzes.filter((q) => chosen.has(q.id));
  for (const quiz of quizzes) {
    for (const section of quiz.sections) {
      for (const ref of section.items)
        need(items, ref.item, { kind: 'item', neededBy: quiz.id, reason: 'in-quiz' });
      const { draw } = section;
      if (!draw) continue;
      if (draw.bank !== null)
        need(banks, draw.bank, { kind: 'bank', neededBy: quiz.id, reason: 'drawn-from' });
      for (const id of draw.pool)
        need(items, id, { kind: 'item', neededBy: draw.bank ?? quiz.id, reason: 'drawn-from' });
    }
  }
  const wholeBanks = new Set(banks);
  for (const bank of holding.banks) {
    if (wholeBanks.has(bank.id))
      for (const id of bank.items) need(items, id, { kind: 'item', neededBy: bank.id, reason: 'in-bank' });
  }
  // Items chosen one by one keep the bank they stand in, with just those items.
  const inQuiz = new Set(quizzes.flatMap((q) => q.sections.flatMap((s) => s.items.map((r) => r.item))));
  const partial = holding.banks.filter(
    (b) => !wholeBanks.has(b.id) && b.items.some((id) => chosen.has(id) && !inQuiz.has(id)),
  );
  const keptItems = holding.items.filter((i) => items.has(i.id));
  const files = new Set<string>();
  for (const item of keptItems) {
    for (const file of item.files)
      if (file.present) need(files, file.path, { kind: 'file', neededBy: item.id, reason: 'used-by-item' });
  }
  const refers = new Set([
    ...quizzes.map((q) => q.id),
    ...banks,
    ...holding.links.filter((l) => chosen.has(l.id)).map((l) => l.id),
  ]);
  return {
    holding: {
      ...holding,
      quizzes,
      banks: holding.banks
        .filter((b) => wholeBanks.has(b.id) || partial.includes(b))
        .map((b) => (wholeBanks.has(b.id) ? b : { ...b, items: b.items.filter((id) => items.has(id)) })),
      items: keptItems,
      links: holding.links.filter((l) => chosen.has(l.id)),
      files: holding.files.filter((f) => files.has(f.path)),
      outline: prune(holding.outline, refers),
      findings: [],
    },
    dependencies,
  };
}

/** Everything: every quiz, bank, item, link and file. */
export function everything(holding: Holding): Selected {
  return { holding: { ...holding, findings: [] }, dependencies: [] };
}

function prune(nodes: readonly OutlineNode[], refers: ReadonlySet<string>): OutlineNode[] {
  return nodes.flatMap((node) => {
    const children = prune(node.children, refers);
    return children.length > 0 || (node.refers !== null && refers.has(node.refers))
      ? [{ ...node, children }]
      : [];
  });
}

/** Ids that `--only` or a search can mean: an id, or a title that only one thing has. */
export function findByName(holding: Holding, name: string): { ids: string[]; ambiguous: boolean } {
  const all = [...holding.quizzes, ...holding.banks, ...holding.items, ...holding.links];
  const exact = all.filter((x) => x.id === name);
  if (exact.length > 0) return { ids: [name], ambiguous: false };
  const titled = all.filter((x) => x.title === name);
  return { ids: titled.map((x) => x.id), ambiguous: titled.length > 1 };
}

/** Addresses of package files that content refers to, for writers and viewers. */
export function addressesIn(holding: Pick<Holding, 'items'>): Set<string> {
  const found = new Set<string>();
  for (const item of holding.items) {
    walk(item.body, (node) => {
      if (node.kind === 'element' && node.attrs['src']) found.add(node.attrs['src']);
    });
  }
  return found;
}
