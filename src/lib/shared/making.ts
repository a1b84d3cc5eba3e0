import type { DraftChange, ItemAt, SpokenFinding } from '@alforja/core';

/** Quizzes and banks that are made here, as screens show them. */

/** A bank wherever it is, as lists show it. */
export interface BankListing {
  readonly place: string;
  readonly placeName: string;
  readonly kind: 'own' | 'course' | 'package';
  /** Its id at its place; null is everything there that stands in no bank. */
  readonly bank: string | null;
  readonly title: string;
  readonly items: number;
  readonly points: number;
  readonly kinds: readonly string[];
  readonly categories: readonly string[];
  /** Titles of quizzes that set or draw items of it. */
  readonly usedIn: readonly string[];
  /** Where it is looked at. */
  readonly href: string;
  /** What is made here, by its id; null where it is not. */
  readonly own: string | null;
  readonly at: number;
}

/** One item of a list that items are taken from. */
export interface ShelfRow {
  readonly at: ItemAt;
  readonly seq: number;
  readonly name: string;
  readonly kind: string;
  readonly category: string | null;
  readonly points: number;
  readonly used: boolean;
}

/** So many items of a bank, and what it can be narrowed to. */
export interface ShelfView {
  /** The package whose items these are, and its reading. */
  readonly packageId: string;
  readonly total: number;
  readonly points: number;
  readonly from: number;
  readonly rows: readonly ShelfRow[];
  readonly kinds: readonly (readonly [kind: string, items: number])[];
  readonly categories: readonly (readonly [category: string, items: number])[];
  readonly worth: readonly number[];
}

/** An item of something that is made, as it stands in it. */
export interface MadeRow {
  readonly key: string;
  readonly at: ItemAt;
  readonly name: string;
  readonly kind: string;
  readonly category: string | null;
  readonly points: number;
  /** Where it is read: the place's name, and its item there. */
  readonly from: string;
  readonly packageId: string | null;
  readonly seq: number | null;
}

/** What a quiz that is being made comes to, and what is wrong with it. */
export interface MakerView {
  readonly items: number;
  readonly least: number;
  readonly most: number;
  readonly minutes: number;
  readonly categories: readonly (readonly [name: string, items: number, points: number])[];
  readonly kinds: readonly (readonly [name: string, items: number, points: number])[];
  readonly sections: readonly {
    readonly id: string;
    readonly least: number;
    readonly most: number;
    readonly minutes: number;
    /** How many its draw chooses from; null where it has none. */
    readonly pool: number | null;
    /** What its draw chooses from, in words. */
    readonly pooled: string;
    readonly rows: readonly MadeRow[];
  }[];
  readonly hazards: readonly {
    readonly spoken: SpokenFinding;
    readonly section: string | null;
    readonly item: string | null;
    /** What the item it is about is called. */
    readonly about: string | null;
    readonly changes: readonly DraftChange[] | null;
    readonly says: string;
  }[];
  /** Items that their sources say otherwise by now. */
  readonly newer: readonly ItemAt[];
  /** What the banks of its plan have, by category and kind. */
  readonly planned: readonly { readonly category: string; readonly kind: string; readonly has: number }[];
}

/** A bank of one's own as it stands. */
export interface OwnBankView {
  readonly rows: readonly (MadeRow & { readonly newer: boolean; readonly gone: boolean })[];
  readonly alike: readonly { readonly because: 'same' | 'near'; readonly keys: readonly string[] }[];
}

/** A quiz made here, as lists show it. */
export interface QuizMade {
  readonly id: string;
  readonly title: string;
  readonly changedAt: number;
  readonly sections: number;
  readonly draws: number;
  readonly fixed: number;
  /** The package it was set down as, where nothing has been changed since. */
  readonly packageId: string | null;
}
