import type { Edit } from '../edit/schema.ts';
import type { FindingCode } from '../model/codes.ts';
import type { Finding } from '../model/finding.ts';
import type { Bank, Holding, Item, Quiz } from '../model/holding.ts';

/** A holding with its things by id. */
export class Situation {
  readonly items: ReadonlyMap<string, Item>;
  readonly quizzes: ReadonlyMap<string, Quiz>;
  readonly banks: ReadonlyMap<string, Bank>;
  constructor(readonly holding: Holding) {
    this.items = new Map(holding.items.map((i) => [i.id, i]));
    this.quizzes = new Map(holding.quizzes.map((q) => [q.id, q]));
    this.banks = new Map(holding.banks.map((b) => [b.id, b]));
  }

  private siblings: ReadonlyMap<string, readonly string[]> | null = null;

  /** The items beside one: those of its first bank, else of its first section or draw. */
  beside(item: string): readonly Item[] {
    if (!this.siblings) {
      const found = new Map<string, readonly string[]>();
      const lists = [
        ...this.holding.banks.map((b) => b.items),
        ...this.holding.quizzes.flatMap((q) =>
          q.sections.flatMap((s) => [s.items.map((r) => r.item), s.draw?.pool ?? []]),
        ),
      ];
      for (const list of lists) for (const id of list) if (!found.has(id)) found.set(id, list);
      this.siblings = found;
    }
    return (this.siblings.get(item) ?? []).flatMap((id) => this.items.get(id) ?? []);
  }
}

/**
 * What puts a finding right: edits, or null where only a person can say what is right. Edits name what they saw
 * only once they have been applied.
 */
export interface Repairer<C extends FindingCode> {
  readonly code: C;
  readonly repair: (situation: Situation, finding: Finding<C>) => readonly Edit[] | null;
}

/** The item a finding is about. */
export const itemOf = ({ items }: Situation, { where }: Finding): Item | null =>
  (where.node !== null && items.get(where.node)) || null;
export const quizOf = ({ quizzes }: Situation, { where }: Finding): Quiz | null =>
  (where.node !== null && quizzes.get(where.node)) || null;

/** How a section is named so that it is found again when others have gone: by its id where that is its own. */
export function sectionName({ sections }: Quiz, at: number): string | number {
  const { id } = sections[at]!;
  const own = sections.filter((s) => s.id === id || s.title === id).length === 1;
  return id !== '' && own && sections[at]!.title !== id ? id : at;
}
