import {
  applyEdits,
  nameOf,
  recheck,
  repairsOf,
  UNNAMED,
  type Edit,
  type EditedKind,
  type Holding,
  type Layer,
  type Refused,
} from '@alforja/core';
import { NOTHING_PUT_RIGHT, type LeftOut, type NodeRef, type PutRight } from '../../shared/edits.ts';

/** What applying a layer came to. */
export interface LayerDone {
  /** What stood there before each edit; undefined for those that were not applied. */
  readonly was: readonly (Edit['was'] | undefined)[];
  readonly refused: readonly { readonly at: number; readonly why: Refused }[];
  /** What took the place of things that are gone, by kind and id. */
  readonly became: readonly { readonly kind: 'item' | 'bank'; readonly id: string; readonly to: string[] }[];
}

interface Put {
  readonly holding: Holding;
  readonly putRight: PutRight;
  readonly layer: LayerDone;
}

/** A holding with its layer over it, and what could be put right by more edits. */
export function putRightIn(source: Holding, layer: Layer): Put {
  const repairs = (holding: Holding): PutRight['repairs'] =>
    repairsOf(holding).map(({ at, edits }) => ({ at, edits }));
  if (layer.length === 0)
    return {
      holding: source,
      putRight: { ...NOTHING_PUT_RIGHT, repairs: repairs(source) },
      layer: { was: [], refused: [], became: [] },
    };
  const applied = applyEdits(source, layer);
  const holding = recheck(source, applied.holding, applied.edits);
  const refused = applied.refused.map(({ at, why }) => ({ at, why }));
  const bad = new Set(refused.map((r) => r.at));
  let next = 0;
  const was = layer.map((_, at) => (bad.has(at) ? undefined : applied.edits[next++]!.was));
  return {
    holding,
    putRight: {
      repairs: repairs(holding),
      leftOut: leftOutOf(source, holding, applied.edits),
      edited: editedOf(source, holding),
      refused: refused.length,
      steps: [],
    },
    layer: { was, refused, became: becameOf(source, holding, applied.edits) },
  };
}

const LISTS = { quiz: 'quizzes', bank: 'banks', item: 'items', rubric: 'rubrics', link: 'links' } as const;
const KINDS = Object.keys(LISTS) as EditedKind[];

/** What an edit leaves out and nothing brings back. */
function leftOutOf(source: Holding, holding: Holding, edits: readonly Edit[]): LeftOut[] {
  const named = new Set(edits.flatMap((e) => (e.op === 'leave-out' ? [e.node] : [])));
  return KINDS.flatMap((kind) => {
    const there = new Set(holding[LISTS[kind]].map((n) => n.id));
    const gone = source[LISTS[kind]].filter((n) => named.has(n.id) && !there.has(n.id));
    return gone.map((n) => ({
      kind,
      id: n.id,
      title: 'body' in n ? nameOf(n) : n.title || UNNAMED[kind],
    }));
  });
}

/** What is otherwise than in the source, or was not there. */
const editedOf = (source: Holding, holding: Holding): NodeRef[] =>
  KINDS.flatMap((kind) => {
    const before = new Map<string, object>(source[LISTS[kind]].map((n) => [n.id, n]));
    const now: readonly { readonly id: string }[] = holding[LISTS[kind]];
    return now.filter((n) => otherwise(kind, before.get(n.id), n)).map(({ id }) => ({ kind, id }));
  });

/** Items that no edit is about are the very same; what holds them is put together anew. */
const otherwise = (kind: EditedKind, before: object | undefined, now: object): boolean =>
  before !== now && (kind === 'item' || JSON.stringify(before) !== JSON.stringify(now));

/** Things that edits have put in the place of one: what was ticked of the one goes for all of them. */
function becameOf(source: Holding, holding: Holding, edits: readonly Edit[]): LayerDone['became'] {
  const madeOf = (kind: 'item' | 'bank', id: string): string[] => {
    const before = new Set(source[LISTS[kind]].map((n) => n.id));
    return holding[LISTS[kind]].map((n) => n.id).filter((n) => !before.has(n) && n.startsWith(`${id}-`));
  };
  return edits.flatMap((e) => {
    const kind = e.op === 'separate' || e.op === 'replicas' ? 'item' : e.op === 'split' ? 'bank' : null;
    if (kind === null) return [];
    const to = madeOf(kind, e.node!);
    return to.length > 0 ? [{ kind, id: e.node!, to }] : [];
  });
}
