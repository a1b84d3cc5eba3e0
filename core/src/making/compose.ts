import { worthOf } from '../assemble/worthOf.ts';
import { applyEdits } from '../edit/apply.ts';
import type { FileRef, Holding, Item, Quiz, Section } from '../model/holding.ts';
import { NO_SETTINGS } from '../model/make.ts';
import { near, tidyNumber } from '../model/number.ts';
import { freeId, itemKey, type BankDraft, type Draft, type ItemAt, type QuizDraft } from './draft.ts';

/** A place's part of what is made: the items that are taken from it, with their files and rubrics. */
export type Source = Pick<Holding, 'items' | 'files' | 'rubrics'>;

/** A quiz or a bank put together out of its places. */
export interface Composed {
  readonly holding: Holding;
  /** Where each item comes from, by its id in what was made. */
  readonly from: ReadonlyMap<string, ItemAt>;
  /** Items that their places do not hold any more. */
  readonly gone: readonly ItemAt[];
}

/**
 * Puts a draft together: items under ids of their own, worth what the draft says, with their files and the rubrics
 * that grade them, and the draft's edits over them.
 * @param drawn what each draw chooses from, by its section's id
 * @param sources what is taken from each place; its files say in `from` where their bytes stand, for whoever writes them
 */
export function compose(
  draft: Draft,
  drawn: ReadonlyMap<string, readonly ItemAt[]>,
  sources: ReadonlyMap<string, Source>,
): Composed {
  const into = new Gathering(sources);
  const holding = draft.kind === 'quiz' ? quizOf(draft, drawn, into) : bankOf(draft, into);
  const edits = draft.kind === 'quiz' ? draft.edits : [];
  return {
    holding: edits.length > 0 ? worthAgain(applyEdits(holding, edits).holding, into) : holding,
    from: into.from,
    gone: into.gone,
  };
}

function quizOf(draft: QuizDraft, drawn: ReadonlyMap<string, readonly ItemAt[]>, into: Gathering): Holding {
  // Ids of items that are named one by one stay theirs, whatever is drawn before them.
  for (const s of draft.sections) for (const { key } of s.items) into.reserve(key);
  const sections = draft.sections.map((s): Section => {
    const items = s.items.flatMap((asked) => {
      const id = into.take(asked, asked.points, asked.key);
      return id === null ? [] : [{ item: id, weight: 1 }];
    });
    const pool = (drawn.get(s.id) ?? []).flatMap((at) => into.take(at, s.draw?.pointsEach ?? null) ?? []);
    const { pick = 0, pointsEach = null } = s.draw ?? {};
    return {
      id: s.id,
      title: s.title,
      shuffle: s.shuffle,
      items,
      instructions: s.instructions || null,
      draw: s.draw && {
        pick,
        bank: null,
        pool,
        weights: null,
        pointsEach: pointsEach ?? into.meanOf(pool),
        withReplacement: false,
      },
    };
  });
  const { instructions, timeLimitMinutes, attempts, passMark } = draft.settings;
  const quiz: Quiz = {
    id: QUIZ_ID,
    title: draft.title,
    settings: { ...NO_SETTINGS, instructions: instructions || null, timeLimitMinutes, attempts, passMark },
    sections,
    test: null,
    metadata: [],
    origin: null,
  };
  return into.holding(draft.title, [quiz], []);
}

/** The id of the one quiz, or the one bank, of what is made. */
export const QUIZ_ID = 'quiz';
export const BANK_ID = 'bank';

function bankOf(draft: BankDraft, into: Gathering): Holding {
  for (const { key } of draft.items) into.reserve(key);
  const items = draft.items.flatMap((asked) => into.take(asked, asked.points, asked.key) ?? []);
  return into.holding(
    draft.title,
    [],
    [{ id: BANK_ID, title: draft.title, items, metadata: [], origin: null }],
  );
}

/** What an edit made of an item does not change what the quiz gives for it. */
function worthAgain(holding: Holding, into: Gathering): Holding {
  return {
    ...holding,
    items: holding.items.map((i) => {
      const wanted = into.worth.get(i.id);
      return wanted === undefined ? i : worthOf(i, wanted);
    }),
  };
}

/** What has been taken of the places so far. */
class Gathering {
  readonly from = new Map<string, ItemAt>();
  readonly gone: ItemAt[] = [];
  /** Points that the draft gives, by id. */
  readonly worth = new Map<string, number>();
  private readonly items = new Map<string, Item>();
  private readonly taken = new Map<string, string>();
  private readonly ids = new Set<string>();
  private readonly byId = new Map<string, ReadonlyMap<string, Item>>();

  constructor(private readonly sources: ReadonlyMap<string, Source>) {
    for (const [place, { items }] of sources) this.byId.set(place, new Map(items.map((i) => [i.id, i])));
  }

  reserve(id: string): void {
    this.ids.add(id);
  }

  /** @returns the item's id in what is made; null where it is gone */
  take(at: ItemAt, points: number | null, key?: string): string | null {
    const item = this.byId.get(at.place)?.get(at.item);
    if (!item) {
      this.gone.push({ place: at.place, item: at.item });
      return null;
    }
    const known = this.taken.get(itemKey(at));
    // One item in two places is one item: it is worth what the first place gives it.
    if (known !== undefined) return known;
    const id = key ?? this.freeIdFor(item.id);
    this.ids.add(id);
    this.taken.set(itemKey(at), id);
    this.from.set(id, { place: at.place, item: at.item });
    if (points !== null) this.worth.set(id, points);
    this.items.set(id, points === null ? { ...item, id } : { ...worthOf(item, points), id });
    return id;
  }

  private freeIdFor(wanted: string): string {
    return this.ids.has(wanted) ? freeId(wanted, this.ids) : wanted;
  }

  /** What the items of a draw are worth on average, where its draft gives them nothing else. */
  meanOf(pool: readonly string[]): number {
    const worth = pool.map((id) => this.items.get(id)?.points ?? 0);
    if (worth.length === 0) return 0;
    const [first = 0] = worth;
    return worth.every((p) => near(p, first))
      ? first
      : tidyNumber(worth.reduce((a, b) => a + b, 0) / worth.length);
  }

  holding(title: string, quizzes: readonly Quiz[], banks: Holding['banks']): Holding {
    const made: Holding = {
      source: { name: title, bytes: 0, sha256: '' },
      format: { container: 'zip', standard: 'qti', version: '3.0' },
      title,
      quizzes,
      banks,
      items: [...this.items.values()],
      rubrics: this.rubrics(),
      links: [],
      files: [],
      outline: [],
      findings: [],
    };
    return this.withFiles(made);
  }

  /** The rubrics that grade what was taken, each once. */
  private rubrics(): Holding['rubrics'] {
    const ids = new Set<string>();
    return [...this.sources].flatMap(([place, { rubrics }]) =>
      rubrics.flatMap((r) => {
        const attachedTo = r.attachedTo.flatMap((item) => this.taken.get(itemKey({ place, item })) ?? []);
        if (attachedTo.length === 0) return [];
        const id = ids.has(r.id) ? freeId(r.id, ids) : r.id;
        ids.add(id);
        return [{ ...r, id, attachedTo }];
      }),
    );
  }

  /** Files of several places may have one name: those that come later get another, wherever they are shown. */
  private withFiles(made: Holding): Holding {
    const files = new Map<string, FileRef>();
    const renamed = new Map<string, Item>();
    for (const [place, source] of this.sources) {
      const mine = made.items.filter((i) => this.from.get(i.id)?.place === place);
      const needed = new Set(mine.flatMap((i) => i.files.map((f) => f.path)));
      const own = source.files.filter((f) => needed.has(f.path));
      const clashing = own.filter((f) => (files.get(f.path)?.sha256 ?? f.sha256) !== f.sha256);
      const edits = clashing.map((f) => {
        const taken = new Set([...files.keys(), ...own.map((o) => o.path)]);
        return { op: 'file-name' as const, path: f.path, to: nameBeside(f.path, taken) };
      });
      const part = applyEdits(
        { ...made, items: mine, files: own, quizzes: [], banks: [], rubrics: [] },
        edits,
      ).holding;
      for (const f of part.files) files.set(f.path, f);
      if (edits.length > 0) for (const i of part.items) renamed.set(i.id, i);
    }
    return {
      ...made,
      items: renamed.size === 0 ? made.items : made.items.map((i) => renamed.get(i.id) ?? i),
      files: [...files.values()],
    };
  }
}

/** A path in the same folder that no file has. */
function nameBeside(path: string, taken: ReadonlySet<string>): string {
  const dot = path.lastIndexOf('.');
  const [stem, ending] = dot > path.lastIndexOf('/') + 1 ? [path.slice(0, dot), path.slice(dot)] : [path, ''];
  for (let n = 2; ; n++) if (!taken.has(`${stem}-${n}${ending}`)) return `${stem}-${n}${ending}`;
}
