import type { Bank, FileRef, Holding, Item, Link, Quiz } from '../model/holding.ts';
import type { Rubric } from '../model/rubric.ts';
import { refused, type Refused } from './refusal.ts';
import { NODE_KINDS_EDITED, type EditedKind } from './schema.ts';

/** A holding while its edits are applied: everything by its id, in the order of the source. */
export class Editing {
  readonly items: Map<string, Item>;
  readonly quizzes: Map<string, Quiz>;
  readonly banks: Map<string, Bank>;
  readonly rubrics: Map<string, Rubric>;
  readonly links: Map<string, Link>;
  readonly files: Map<string, FileRef>;
  /** What does not go, by kind; it can be edited all the same, and brought back. */
  readonly leftOut: Readonly<Record<EditedKind, Set<string>>>;
  /** Draws that edits have changed, and whether they say what each item gives; by quiz and section. */
  readonly drawn = new Map<string, boolean>();
  /** Banks each item stands in, made when the first item is moved. */
  private places: Map<string, Set<string>> | null = null;

  constructor(readonly source: Holding) {
    const byId = <T extends { readonly id: string }>(list: readonly T[]): Map<string, T> =>
      new Map(list.map((x) => [x.id, x]));
    this.items = byId(source.items);
    this.quizzes = byId(source.quizzes);
    this.banks = byId(source.banks);
    this.rubrics = byId(source.rubrics);
    this.links = byId(source.links);
    this.files = new Map(source.files.map((f) => [f.path, f]));
    this.leftOut = { item: new Set(), quiz: new Set(), bank: new Set(), rubric: new Set(), link: new Set() };
  }

  /** The things of a kind, by id: what all kinds have in common is a title. */
  byKind(kind: EditedKind): Map<string, { readonly title: string }> {
    switch (kind) {
      case 'item':
        return this.items;
      case 'quiz':
        return this.quizzes;
      case 'bank':
        return this.banks;
      case 'rubric':
        return this.rubrics;
      case 'link':
        return this.links;
    }
  }

  /** What kind of thing goes by an id, among those wanted. */
  kindOf(node: string, wanted: readonly EditedKind[] = NODE_KINDS_EDITED): EditedKind | Refused {
    const found = wanted.filter((kind) => this.byKind(kind).has(node));
    if (found.length === 1) return found[0]!;
    if (found.length > 1) return refused('node-ambiguous', { node });
    return NODE_KINDS_EDITED.some((kind) => this.byKind(kind).has(node))
      ? refused('node-kind', { node, wants: wanted.join(' or ') })
      : refused('node-unknown', { node });
  }

  item(node: string): Item | Refused {
    return this.items.get(node) ?? this.lacking(node, 'item');
  }
  quiz(node: string): Quiz | Refused {
    return this.quizzes.get(node) ?? this.lacking(node, 'quiz');
  }
  bank(node: string): Bank | Refused {
    return this.banks.get(node) ?? this.lacking(node, 'bank');
  }

  private lacking(node: string, kind: EditedKind): Refused {
    const found = this.kindOf(node, [kind]);
    return typeof found === 'string' ? refused('node-unknown', { node }) : found;
  }

  private placesOf(): Map<string, Set<string>> {
    if (this.places) return this.places;
    this.places = new Map();
    for (const bank of this.banks.values())
      for (const item of bank.items) {
        const at = this.places.get(item);
        if (at) at.add(bank.id);
        else this.places.set(item, new Set([bank.id]));
      }
    return this.places;
  }

  /** The banks an item stands in. */
  banksOf = (item: string): string[] => [...(this.placesOf().get(item) ?? [])];

  /** What is in a bank now: its own in their order, then what came, in the order of the source. */
  membersOf(bank: string): readonly string[] {
    return this.movedBanks().get(bank)?.items ?? [];
  }

  /** Takes items out of the banks they stand in, and puts them into another. */
  moveInto(bank: string, items: readonly string[]): void {
    const places = this.placesOf();
    for (const item of items) places.set(item, new Set([bank]));
  }

  /** Several items in the place of one of a bank. */
  exchange(bank: string, gone: string, come: readonly string[]): void {
    const b = this.banks.get(bank)!;
    const places = this.placesOf();
    places.delete(gone);
    for (const item of come) places.set(item, (places.get(item) ?? new Set()).add(bank));
    this.banks.set(bank, { ...b, items: b.items.flatMap((id) => (id === gone ? come : [id])) });
  }

  /** Banks with what is in them after moving: their own in their order, then what came, in the order of the source. */
  movedBanks(): ReadonlyMap<string, Bank> {
    if (!this.places) return this.banks;
    const members = new Map<string, Set<string>>();
    for (const item of this.items.keys())
      for (const bank of this.places.get(item) ?? [])
        members.set(bank, (members.get(bank) ?? new Set()).add(item));
    return new Map(
      [...this.banks].map(([id, bank]) => {
        const there = members.get(id) ?? new Set<string>();
        const own = bank.items.filter((i) => there.has(i));
        own.forEach((i) => there.delete(i));
        const same = own.length === bank.items.length && there.size === 0;
        return [id, same ? bank : { ...bank, items: [...own, ...there] }];
      }),
    );
  }
}
