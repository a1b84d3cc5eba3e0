import type {
  Draft,
  DraftBank,
  DraftItem,
  DraftQuiz,
  DraftRef,
  DraftSection,
  DrawFilter,
} from '../formats/draft.ts';
import { composed } from '../model/composed.ts';
import { finding, type Finding } from '../model/finding.ts';
import type { Bank, Draw, Item, ItemRef, Quiz, Section } from '../model/holding.ts';
import { shufflesItems } from '../model/quizzes.ts';
import type { TestItemRef, TestSection, TestStructure } from '../model/testStructure.ts';

/** Resolves references between documents: item addresses, bank names, section files. */
export function assemble(
  draft: Draft,
  add: (found: Finding) => void,
): { items: Item[]; quizzes: Quiz[]; banks: Bank[] } {
  const byPath = new Map<string, DraftItem>();
  const byIdent = new Map<string, DraftItem>();
  for (const item of draft.items) {
    if (!byPath.has(item.path)) byPath.set(item.path, item);
    if (!byIdent.has(item.rawId)) byIdent.set(item.rawId, item);
  }
  const sectionFiles = new Map(draft.banks.filter((b) => b.sections.length > 0).map((b) => [b.path, b]));
  const referred = new Set<DraftBank>();

  const resolve = (refs: readonly DraftRef[], path: string, node: string): ItemRef[] =>
    refs.flatMap((ref): ItemRef[] => {
      if (ref.by === 'id') return [{ item: ref.item, weight: ref.weight }];
      if (ref.by === 'section') return [];
      const found = ref.by === 'path' ? byPath.get(ref.path) : byIdent.get(ref.ident);
      if (found) return [{ item: found.item.id, weight: ref.weight }];
      add(
        finding(
          'item-ref-missing',
          'error',
          { path, line: ref.line, node },
          { item: ref.by === 'path' ? ref.path : ref.ident },
        ),
      );
      return [];
    });

  /** A reference to a section file is replaced by the sections in it. */
  const expand = (
    sections: readonly DraftSection[],
    path: string,
    node: string,
  ): { section: DraftSection; path: string }[] =>
    sections.flatMap((section) => {
      const [ref] = section.refs;
      if (ref?.by !== 'section') return [{ section, path }];
      const file = sectionFiles.get(ref.path);
      if (!file) {
        add(finding('item-ref-missing', 'error', { path, line: ref.line, node }, { item: ref.path }));
        return [];
      }
      referred.add(file);
      return file.sections.map((inner) => ({
        section: { ...inner, title: [section.title, inner.title].filter((t) => t !== '').join(' / ') },
        path: file.path,
      }));
    });

  const expanded = draft.quizzes.map((quiz) => ({
    quiz,
    sections: expand(quiz.sections, quiz.path, quiz.id),
  }));
  const banks: Bank[] = draft.banks
    .filter((bank) => !referred.has(bank))
    .map(({ refs, rawId: _rawId, path, sections: _sections, ...bank }) => ({
      ...bank,
      items: resolve(refs, path, bank.id).map((r) => r.item),
    }));
  const rawBankIds = new Map(draft.banks.map((b) => [b.rawId, b.id]));
  const members = new Map(banks.map((b) => [b.id, b.items]));
  const byId = new Map(draft.items.map((d) => [d.item.id, d.item]));
  const quizzes = expanded.map(({ quiz, sections }) =>
    buildQuiz(
      quiz,
      sections.map(({ section, path }) => {
        const own = resolve(section.refs, path, quiz.id);
        return buildSection(section, own, { bankIds: rawBankIds, members, byId }, (item) =>
          add(finding('item-ref-missing', 'error', { path, line: section.line, node: quiz.id }, { item })),
        );
      }),
    ),
  );
  return {
    items: draft.items.map((d) => d.item),
    quizzes: quizzes.map((q) => (q.test ? { ...q, test: resolveTest(q.test, byPath) } : q)),
    banks,
  };
}

/** Item references of a test lead to the items at their paths. */
function resolveTest(test: TestStructure, byPath: ReadonlyMap<string, DraftItem>): TestStructure {
  const resolve = <T extends TestSection | TestItemRef>(node: T): T =>
    node.kind === 'item'
      ? { ...node, item: byPath.get(node.href)?.item.id ?? null }
      : { ...node, children: node.children.map(resolve) };
  return { ...test, parts: test.parts.map((p) => ({ ...p, sections: p.sections.map(resolve) })) };
}

function buildQuiz({ path: _path, ...quiz }: DraftQuiz, sections: Section[]): Quiz {
  return { ...quiz, settings: { ...quiz.settings, shuffleItems: shufflesItems(sections) }, sections };
}

interface Pools {
  readonly bankIds: ReadonlyMap<string, string>;
  readonly members: ReadonlyMap<string, readonly string[]>;
  readonly byId: ReadonlyMap<string, Item>;
}

function buildSection(
  section: DraftSection,
  own: readonly ItemRef[],
  { bankIds, members, byId }: Pools,
  missing: (bank: string) => void,
): Section {
  const { id, title, shuffle, instructions } = section;
  if (!section.draw) return { id, title, shuffle, instructions, items: own, draw: null };
  const { pick, bank: named, pointsEach, withReplacement, filter } = section.draw;
  const bank = named !== null ? (bankIds.get(named) ?? null) : filter ? null : bankHolding(own, members);
  if (named !== null && bank === null) missing(named);
  // By metadata alone the pool is the section's own items, else those of every bank.
  const everywhere = own.length > 0 ? own.map((r) => r.item) : [...members.values()].flat();
  const whole =
    named !== null ? (bank ? members.get(bank)! : []) : filter ? everywhere : own.map((r) => r.item);
  const pool = filter ? whole.filter((item) => fits(byId.get(item), filter)) : whole;
  const weights = named === null && own.some((r) => r.weight !== 1) ? own.map((r) => r.weight) : null;
  const draw: Draw = {
    pick: Number.isFinite(pick) ? pick : pool.length,
    bank: filter ? null : bank,
    pool,
    weights: filter ? null : weights,
    pointsEach: pointsEach ?? Number.NaN,
    withReplacement,
  };
  return {
    id,
    title,
    shuffle,
    instructions,
    items: bank !== null || filter ? own.filter((r) => !pool.includes(r.item)) : own,
    draw,
  };
}

/** Whether an item's metadata fit a filter; names and values are compared without regard to case. */
function fits(item: Item | undefined, filter: DrawFilter): boolean {
  switch (filter.by) {
    case 'field':
      return (item?.metadata ?? []).some(
        (f) =>
          composed(f.label.toLowerCase()) === composed(filter.label.toLowerCase()) &&
          composed(f.value.toLowerCase()) === composed(filter.value.toLowerCase()),
      );
    case 'and':
      return filter.parts.every((p) => fits(item, p));
    case 'or':
      return filter.parts.some((p) => fits(item, p));
    case 'not':
      return !filter.parts.some((p) => fits(item, p));
  }
}

/** A draw from exactly the items of a bank is a draw from that bank. */
function bankHolding(
  own: readonly ItemRef[],
  members: ReadonlyMap<string, readonly string[]>,
): string | null {
  const wanted = new Set(own.map((r) => r.item));
  if (wanted.size === 0) return null;
  for (const [bank, items] of members) {
    if (items.length === wanted.size && items.every((id) => wanted.has(id))) return bank;
  }
  return null;
}
