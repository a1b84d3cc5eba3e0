import type { LayerView, LeftOut } from './edits.ts';
import type { FileRef, Format, OutlineNode, QuizSettings, SpokenFinding, Varies } from '@alforja/core';

/** A package as the reading room shows it. Items are told by their place in it, from 0, to hold very many. */

/** Runs of places: where each begins, and how many follow one another. */
export type Runs = readonly (readonly [from: number, length: number])[];

export interface RoomPlace {
  readonly id: string;
  readonly title: string;
  readonly items: Runs;
  readonly count: number;
  /** Whether something of it was put right. */
  readonly edited: boolean;
}

export interface RoomQuiz extends RoomPlace {
  /** What one student is set of it. */
  readonly set: { readonly items: number; readonly points: number };
  readonly draws: boolean;
  /** Settings, draws and structure, in a few words each. */
  readonly facts: readonly string[];
  readonly settings: QuizSettings;
  readonly parts: readonly RoomSection[];
  /** What one student can reach in each section. */
  readonly sections: readonly { readonly title: string; readonly points: number }[];
}

/** A section of a quiz, with where its items stand, or what is drawn in it. */
export interface RoomSection {
  /** Its title, or its place from 0: what edits call it. */
  readonly name: string | number;
  readonly title: string;
  readonly items: Runs;
  /** Items that count otherwise than once: where in the section, from 0, and how many times. */
  readonly weights: readonly (readonly [at: number, weight: number])[];
  readonly draw: {
    readonly pick: number;
    readonly pool: Runs;
    readonly pointsEach: number;
    readonly bank: string | null;
  } | null;
}

/** Replicas of one exercise. */
export interface RoomFamily {
  readonly id: string;
  readonly title: string;
  readonly items: Runs;
  readonly count: number;
  readonly varies: readonly Varies[];
}

/** Something found, beside the item it is about. */
export interface RoomFinding {
  readonly spoken: SpokenFinding;
  readonly item: number | null;
  /** Its place among all findings, and what its repair would do, in words; null where it has none. */
  readonly at: number;
  readonly repair: readonly string[] | null;
}

export interface RoomView {
  readonly title: string;
  readonly format: Format;
  readonly quizzes: readonly RoomQuiz[];
  readonly banks: readonly RoomPlace[];
  readonly families: readonly RoomFamily[];
  readonly loose: Runs;
  readonly looseCount: number;
  readonly rubrics: readonly { readonly id: string; readonly title: string; readonly criteria: number }[];
  readonly links: readonly {
    readonly id: string;
    readonly title: string;
    readonly kind: 'web' | 'lti';
    readonly url: string;
  }[];
  readonly files: readonly Pick<FileRef, 'path' | 'bytes' | 'sha256'>[];
  readonly outline: readonly OutlineNode[];
  readonly findings: readonly RoomFinding[];
  readonly items: number;
  /** Items of which something was put right. */
  readonly edited: Runs;
  readonly leftOut: readonly LeftOut[];
  readonly layer: LayerView;
  /** How much there is, where what is here holds only the first of its findings, files and links; null where it holds all. */
  readonly short: RoomCounts | null;
}

/** How many findings that somebody has to decide on, notes, files and links there are. */
export interface RoomCounts {
  readonly decide: number;
  readonly notes: number;
  readonly files: number;
  readonly links: number;
}

/** What stands in a room, whether or not it is all here. */
export function countsOf({ short, findings, files, links }: RoomLists): RoomCounts {
  if (short) return short;
  const notes = findings.filter((f) => f.spoken.severity === 'note').length;
  return { decide: findings.length - notes, notes, files: files.length, links: links.length };
}
type RoomLists = Pick<RoomView, 'short' | 'findings' | 'files' | 'links'>;

/** Of longer lists a page brings the first only; the rest is fetched once it is there. */
const MOST_AT_ONCE = 200;

/** What a page brings of a room. */
export function shortened<T extends RoomLists>(view: T): T {
  const { findings, files, links } = view;
  if (Math.max(findings.length, files.length, links.length) <= MOST_AT_ONCE) return view;
  const first = <L>(list: readonly L[]): readonly L[] => list.slice(0, MOST_AT_ONCE);
  const lists = { findings: first(findings), files: first(files), links: first(links) };
  return { ...view, ...lists, short: countsOf(view) };
}

/** What is known of every item, column by column, so that fifty thousand are read at once; names come apart. */
export interface RoomRows {
  /** Kinds and categories once each, and by item which it is; -1 is none. */
  readonly kinds: readonly string[];
  readonly kind: readonly number[];
  readonly categories: readonly string[];
  readonly category: readonly number[];
  readonly points: readonly number[];
}

/** What is known of no items. */
export const NO_ROWS: RoomRows = { kinds: [], kind: [], categories: [], category: [], points: [] };

/** Items whose names are asked for at once. */
export const MOST_NAMES = 400;

/** Places as runs, in the order given. */
export function toRuns(places: Iterable<number>): Runs {
  const runs: [number, number][] = [];
  for (const at of places) {
    const last = runs.at(-1);
    if (last && last[0] + last[1] === at) last[1] += 1;
    else runs.push([at, 1]);
  }
  return runs;
}

/** The places of runs, in their order. */
export function fromRuns(runs: Runs): number[] {
  const places: number[] = [];
  for (const [from, length] of runs) for (let at = from; at < from + length; at++) places.push(at);
  return places;
}
