import type { ContentsView, Dependency, Tick } from '@alforja/core';
import type { ItemRow } from './types.ts';

/** What can be ticked in a source, and what the ticks come to, as the page of a transfer shows it. */

/** A thing that can be ticked; its items come apart, a page at a time. */
export interface Thing {
  readonly tick: Tick;
  readonly title: string;
  readonly items: number;
  readonly points: number;
  /** How many draws a quiz has, and what one student is set of it. */
  readonly draws: number;
  readonly set: { readonly items: number; readonly points: number } | null;
  /** How many criteria a rubric has. */
  readonly criteria: number;
  readonly link: 'web' | 'lti' | null;
  /** Titles of the assignments that a rubric grades. */
  readonly grades: readonly string[];
}

/** Things that stand together in the source, and what they hold, each item once. */
export interface ThingGroupShown {
  readonly id: string;
  readonly name: string;
  readonly things: readonly Thing[];
  readonly items: number;
  readonly points: number;
}

/** Whether a text holds what somebody filters by; an empty filter holds for all. */
export const says = (text: string, filter: string): boolean =>
  text.toLowerCase().includes(filter.trim().toLowerCase());

/** Everything that can be ticked, or of it what fits a filter. */
export interface ContentsList {
  readonly groups: readonly ThingGroupShown[];
  /** How many items stand in no quiz and no bank. */
  readonly loose: number;
  readonly rubrics: number;
}

/** Some items of a thing, in order, and how many there are. */
export interface ItemPage {
  readonly rows: readonly ItemRow[];
  readonly total: number;
}

/** Items that come at once. */
export const ITEMS_A_PAGE = 100;

/** Something that is not included, with those of its items that are not. */
export interface BehindPlace {
  readonly key: string;
  readonly title: string;
  /** What it is: a quiz, a bank, an item on its own … */
  readonly word: string;
  readonly items: number;
  /** The first of its items by their names. */
  readonly names: readonly string[];
}

/** Places that are named where not everything goes, and items that are named of each. */
export const MOST_BEHIND = 25;

/** What the ticks bring along and what they leave behind, in names. */
export interface ContentsShown extends Pick<
  ContentsView,
  'items' | 'points' | 'total' | 'rubrics' | 'rubricsTotal' | 'broken'
> {
  readonly dependencies: readonly (Dependency & {
    /** What that is called which it comes along for. */
    readonly by: string;
  })[];
  /** Rubrics left behind knowingly, and what an item is called that then has none. */
  readonly ungraded: readonly { readonly rubric: string; readonly item: string }[];
  /** The first of what does not go, how many places that is, and how many things and items. */
  readonly behind: readonly BehindPlace[];
  readonly places: number;
  readonly left: number;
  /** Ids of items that are ticked on their own, by what holds them: the `tickId` of a quiz or a bank. */
  readonly singles: Readonly<Record<string, readonly string[]>>;
  /** Ids of the items in no quiz and no bank that are ticked on their own. */
  readonly loose: readonly string[];
}
