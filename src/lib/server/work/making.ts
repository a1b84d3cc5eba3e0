import {
  carriedOut,
  counted,
  fileReader,
  hazardsOf,
  itemKey,
  KIND_NAMES,
  nameOf,
  outlookOf,
  planPlaces,
  seeded,
  seedOf,
  speak,
  writeHolding,
  type Counted,
  type DraftSection,
  type Finding,
  type QuizDraft,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import type { MakerView } from '../../shared/making.ts';
import { itemCodec } from '../store/documents/packages.ts';
import { readStored } from '../store/files.ts';
import type { TakenItem } from '../store/takenItems.ts';
import { packageFile } from '../store/packages.ts';
import { gather, printOf, whereStands, type Gathered } from './gathering.ts';
import { newerOf, placeName, rowOf, type DraftAsked } from './madeRows.ts';
import type { Progress } from './progress.ts';
import { shelvesOf, type PlaceShelf } from './shelves.ts';

/** What a draw chooses from, in words. */
function pooled(section: DraftSection, shelves: ReadonlyMap<string, PlaceShelf>): string {
  const { from = [], named = [], without = [] } = section.draw?.pool ?? {};
  const parts = from.map(({ place, bank, filter }) => {
    const shelf = shelves.get(place);
    const title = bank === null ? '' : shelf?.tree.banks.find((b) => b.id === bank)?.title;
    const narrowed = [
      ...filter.categories.map((c) => c || 'no category'),
      ...filter.kinds.map((k) => KIND_NAMES[k] ?? k),
      ...(filter.points === null ? [] : [`${filter.points} points`]),
      ...(filter.used === null ? [] : [filter.used ? 'used before' : 'not used before']),
      ...(filter.picture === null ? [] : [filter.picture ? 'with a picture' : 'without a picture']),
      ...(filter.words.trim() === '' ? [] : [`“${filter.words.trim()}”`]),
    ].join(', ');
    return `${title || placeName(shelf)}${narrowed ? ` (${narrowed})` : ''}`;
  });
  return [
    ...parts,
    ...(named.length > 0 ? [`${named.length} chosen by hand`] : []),
    ...(without.length > 0 ? [`without ${without.length}`] : []),
  ].join('; ');
}

/** What an item that only lists know of takes, in seconds. */
const UNREAD_SECONDS = 60;

/** What the items of a quiz count for: by themselves, or as lists know them. */
function countedIn({ holding, from, shelves, whole }: Gathered): Counted[] {
  if (whole) return holding.items.map(counted);
  const kinds = new Map(
    [...shelves].flatMap(([place, s]) =>
      s.items.map((i) => [itemKey({ place, item: i.item }), i.kind] as const),
    ),
  );
  return holding.items.map((i) => ({
    id: i.id,
    points: i.points,
    category: i.category,
    kind: kinds.get(itemKey(from.get(i.id)!)) ?? 'none',
    seconds: UNREAD_SECONDS,
  }));
}

/** What a quiz that is being made comes to, and what is wrong with it. */
export async function madeWeigh({ madeId, draft }: DraftAsked<QuizDraft>): Promise<MakerView> {
  const gathered = await gather(madeId, draft, false);
  const { holding, shelves, from } = gathered;
  const quiz = holding.quizzes[0]!;
  const all = countedIn(gathered);
  const kinds = new Map(all.map((c) => [c.id, c.kind]));
  const outlook = outlookOf(quiz, all);
  const shelf = (place: string): PlaceShelf | null => shelves.get(place) ?? null;
  const byId = new Map(holding.items.map((i) => [i.id, i]));
  const told = (shares: typeof outlook.kinds): [string, number, number][] =>
    [...shares].map(([name, s]) => [name, s.items, s.points]);
  return {
    items: outlook.items,
    least: outlook.points.least,
    most: outlook.points.most,
    minutes: outlook.minutes,
    categories: told(outlook.categories),
    kinds: told(outlook.kinds),
    sections: draft.sections.map((s, at) => ({
      id: s.id,
      ...outlook.sections[at]!,
      pool: s.draw ? quiz.sections[at]!.draw!.pool.length : null,
      pooled: pooled(s, shelves),
      rows: s.items.flatMap((asked) => {
        const item = byId.get(asked.key);
        return item ? [rowOf(asked, item, kinds.get(asked.key)!, shelves.get(asked.place))] : [];
      }),
    })),
    hazards: hazardsOf({ ...gathered, from, draft, shelves: shelf, outlook }).map(
      ({ finding, section, item, changes }) => ({
        spoken: speak(finding),
        section,
        item,
        about: item === null ? null : nameOf(byId.get(item)!),
        changes,
        says: remedy(changes),
      }),
    ),
    newer: gathered.whole ? await newerOf(madeId, shelves) : [],
    planned: planPlaces(shelf, draft.plan.from).map(({ category, kind, items }) => ({
      category,
      kind,
      has: items.length,
    })),
  };
}

/** What a repair does, on its button. */
function remedy(changes: MakerView['hazards'][number]['changes']): string {
  const [first] = changes ?? [];
  switch (first?.do) {
    case 'draw':
      return first.to.pick === undefined
        ? `Give each ${first.to.pointsEach === 1 ? '1 point' : `${first.to.pointsEach ?? 1} points`}`
        : `Draw ${first.to.pick}`;
    case 'without':
      return 'Leave it out of the draw';
    case 'remove':
      return 'Take it out';
    case 'settings':
      return first.to.passMark !== undefined
        ? `Set the pass mark to ${first.to.passMark}`
        : first.to.timeLimitMinutes !== undefined
          ? `Give ${first.to.timeLimitMinutes} minutes`
          : 'Allow one attempt';
    case 'section-add':
      return 'Draw one of each';
    case 'plan':
      return 'Plan as many as there are';
    default:
      return 'Put it right';
  }
}

export interface CarryAsked extends DraftAsked<QuizDraft> {
  readonly as: 'draws' | 'items';
}

/** A plan carried out. */
export async function madeCarry({ madeId, draft, as }: CarryAsked): Promise<QuizDraft> {
  const shelves = await shelvesOf(
    draft.plan.from.map((f) => f.place),
    madeId,
  );
  const named = (cell: { category: string; kind: string }): string =>
    [cell.category, KIND_NAMES[cell.kind] ?? cell.kind].filter(Boolean).join(', ');
  return carriedOut(draft, as, (place) => shelves.get(place) ?? null, named, seeded(seedOf(madeId)));
}

/** What was set down: bytes of a package, and the items that were taken into it. */
export interface SetDown {
  readonly bytes: Uint8Array;
  readonly findings: readonly Finding[];
  readonly items: number;
  readonly taken: readonly (TakenItem & { readonly json: string })[];
}

/** Writes what is made as a package that holds all of it, so that it can be tried, printed and sent. */
export async function madeWrite({ madeId, draft }: DraftAsked, progress: Progress): Promise<SetDown> {
  const { holding, from, fresh } = await gather(madeId, draft, true);
  progress('Writing the package', 0, holding.items.length);
  const readers = new Map<string, (path: string) => Uint8Array | null>();
  for (const f of holding.files) {
    if (f.from === undefined) continue;
    const { packageId } = whereStands(f.from);
    if (readers.has(packageId)) continue;
    const file = await packageFile(packageId);
    if (file)
      readers.set(packageId, await fileReader(file.name, await readStored(file.sha256), nodePlatform));
  }
  const read = (stands: string): Uint8Array | null => {
    const { packageId, path } = whereStands(stands);
    return readers.get(packageId)?.(path) ?? null;
  };
  const { packages, findings } = writeHolding(holding, 'qti3.0', read, nodePlatform);
  return {
    bytes: packages[0]!,
    findings,
    items: holding.items.length,
    taken: [...from.values()].flatMap((at) => {
      const now = fresh.get(itemKey(at));
      return now
        ? [{ ...at, packageId: now.packageId, print: printOf(now.item), json: itemCodec.write(now.item) }]
        : [];
    }),
  };
}
