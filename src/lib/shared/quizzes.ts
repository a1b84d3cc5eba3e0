import type { Answers, ContentNode, Distribution, Item, SheetWay, SpokenFinding } from '@alforja/core';

/** A quiz as it is tried, printed and looked at: plain values. */

export const QUIZ_VIEWS = ['try', 'draws', 'versions'] as const;
export type QuizView = (typeof QUIZ_VIEWS)[number];

/** What pages of a quiz have in common. */
export interface QuizHead {
  readonly packageId: string;
  readonly packageName: string;
  /** What is made here that it was set down from. */
  readonly made: string | null;
  readonly id: string;
  readonly title: string;
  readonly items: number;
  readonly points: number;
  readonly draws: number;
  readonly instructions: string | null;
  readonly minutes: number | null;
  readonly passMark: number | null;
  readonly attempts: number | 'unlimited' | null;
}

/** An item as a candidate gets it; how it is scored stays on the server. */
export interface SetView {
  readonly seed: string;
  readonly sections: readonly { readonly title: string; readonly instructions: string | null }[];
  readonly items: readonly {
    readonly ref: string;
    readonly section: number;
    readonly points: number;
    readonly linear: boolean;
    readonly individual: boolean;
    readonly attempts: number | null;
    readonly told: boolean;
    readonly item: Omit<Item, 'scoring'>;
  }[];
}

/** What answers came to, so far or at the end. */
export interface SatView {
  readonly total: number;
  readonly points: number;
  readonly passed: boolean | null;
  readonly items: readonly {
    readonly ref: string;
    readonly score: number;
    readonly points: number;
    readonly presented: boolean;
    readonly done: boolean;
    /** What the last answer is told. */
    readonly feedback: readonly { readonly kind: string; readonly content: readonly ContentNode[] }[];
    /** The answer and the key in words; only once it has been handed in. */
    readonly answer: readonly string[];
    readonly key: readonly string[];
    readonly byHand: boolean;
  }[];
}

/** Answers of one candidate by item, attempt by attempt. */
export type Attempts = readonly (readonly [item: string, attempts: readonly Answers[]])[];

export interface FairView {
  readonly exact: boolean;
  readonly candidates: number | null;
  readonly seed: string | null;
  readonly total: Distribution;
  readonly minutes: Distribution;
  readonly shared: Distribution;
  readonly categories: readonly { readonly category: string | null; readonly items: Distribution }[];
  /** How often items are met: those that not everybody is set, the rarest first. */
  readonly met: readonly { readonly seq: number; readonly name: string; readonly chance: number }[];
  readonly everybody: number;
  readonly twice: readonly {
    readonly names: readonly [string, string];
    readonly because: 'same' | 'near' | 'family';
    readonly chance: number;
  }[];
  /** Totals of simulated candidates who answer by ability; null where there are too many questions to try. */
  readonly reached: {
    readonly totals: Distribution;
    readonly candidates: number;
    readonly seed: string;
  } | null;
}

export interface VersionsView {
  readonly versions: readonly {
    readonly name: string;
    readonly seed: string;
    readonly points: number;
    /** The item at each number, with its choices by their letters in the quiz, in this version's order. */
    readonly items: readonly { readonly seq: number; readonly name: string; readonly choices: string }[];
  }[];
  readonly sharing: readonly {
    readonly versions: readonly [string, string];
    readonly items: readonly [shared: number, least: number];
    readonly places: readonly [shared: number, least: number];
    readonly choices: readonly [shared: number, least: number];
  }[];
  readonly findings: readonly SpokenFinding[];
}

/** What was sent and what arrived of a quiz, sat with the same answers. */
export interface BothView {
  readonly title: string;
  readonly arrivedTitle: string;
  readonly seed: string;
  readonly way: SheetWay;
  /** One candidate's sheet: those that differ first. */
  readonly sheet: {
    readonly source: number;
    readonly arrived: number;
    readonly rows: readonly {
      readonly name: string;
      readonly answer: readonly string[];
      readonly source: number;
      /** Null where it did not arrive. */
      readonly arrived: number | null;
      readonly differs: boolean;
    }[];
  };
  /** Many candidates; null where the quiz has too many questions to try them all. */
  readonly many: {
    readonly candidates: number;
    readonly differing: number;
    readonly source: Distribution;
    readonly arrived: Distribution;
    /** What the difference comes from, the most telling first. */
    readonly items: readonly {
      readonly name: string;
      readonly missing: boolean;
      readonly candidates: number;
      readonly mean: number;
    }[];
  } | null;
}
