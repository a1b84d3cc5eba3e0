import type { Draft, DraftBank, DraftItem, DraftQuiz, DraftRef, DraftSection } from '../formats/draft.ts';
import { finding, type Finding } from '../model/finding.ts';
import type { Bank, Draw, Item, ItemRef, Quiz, Section } from '../model/holding.ts';
import type { TestItemRef, TestSection, TestStructure } from '../model/test.ts';

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
  const quizzes = expanded.map(({ quiz, sections }) =>
    buildQuiz(
      quiz,
      sections.map(({ section, path }) => {
        const own = resolve(section.refs, path, quiz.id);
        return buildSection(section, own, rawBankIds, members, (code, params) =>
          add(finding(code, 'error', { path, line: section.line, node: quiz.id }, params)),
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
  const shuffles = new Set(sections.map((s) => s.shuffle));
  const shuffleItems = sections.length > 0 && shuffles.size === 1 ? [...shuffles][0]! : null;
  return { ...quiz, settings: { ...quiz.settings, shuffleItems }, sections };
}

function buildSection(
  section: DraftSection,
  own: readonly ItemRef[],
  bankIds: ReadonlyMap<string, string>,
  members: ReadonlyMap<string, readonly string[]>,
  complain: (code: 'item-ref-missing', params: Record<string, string>) => void,
): Section {
  const { id, title, shuffle, instructions } = section;
  if (!section.draw) return { id, title, shuffle, instructions, items: own, draw: null };
  const { pick, bank: named, pointsEach, withReplacement } = section.draw;
  const bank = named !== null ? (bankIds.get(named) ?? null) : bankHolding(own, members);
  if (named !== null && bank === null) complain('item-ref-missing', { item: named });
  const pool = named !== null ? (bank ? members.get(bank)! : []) : own.map((r) => r.item);
  const weights = named === null && own.some((r) => r.weight !== 1) ? own.map((r) => r.weight) : null;
  const draw: Draw = { pick, bank, pool, weights, pointsEach: pointsEach ?? Number.NaN, withReplacement };
  return {
    id,
    title,
    shuffle,
    instructions,
    items: bank !== null ? own.filter((r) => !pool.includes(r.item)) : own,
    draw,
  };
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
