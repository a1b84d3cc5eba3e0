import type { ColumnRole, Format, Item, Meaning, Rubric, SpokenFinding, Varies } from '@alforja/core';

/** Plain values that cross between server and screens. */

export interface PackageSummary {
  readonly title: string;
  readonly format: Format;
  readonly items: number;
  readonly points: number;
  readonly quizzes: number;
  readonly banks: number;
  readonly rubrics: number;
  readonly errors: number;
  readonly warnings: number;
  readonly notes: number;
  /** What packages of one origin have in common. */
  readonly origin: string;
  /** What its documents of questions look like; none for packages. */
  readonly looks?: readonly (readonly string[])[];
}

export interface RuleRow {
  readonly id: string;
  readonly name: string;
  readonly origin: string;
  readonly label: string;
  readonly means: Meaning;
  readonly createdAt: number;
}

/** A layout that somebody has confirmed, as a list shows it. */
export interface LayoutRow {
  readonly id: string;
  readonly kind: 'rubrics' | 'questions';
  readonly name: string;
  readonly says: string;
  readonly createdAt: number;
}

/** What is shown of an item before it has been read whole. */
export interface FirstRow {
  readonly name: string;
  readonly kind: string;
}

/** What a list shows of an item. */
export interface ItemRow {
  readonly seq: number;
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly points: number;
}

export interface StoredItem {
  readonly nodeId: string;
  readonly title: string;
  readonly stem: string;
  readonly kinds: string;
  readonly points: number;
  readonly fingerprint: string;
  readonly category: string | null;
  readonly gradedByHand: boolean;
  readonly json: string;
  /** The files it shows, as JSON; empty where it shows none. */
  readonly files: string;
  /** What is right, as lists show it. */
  readonly keyText: string;
  /** The same as a comparison shows it. */
  readonly shortKey: string;
  /** Words it is found by, blanks between them; and those of what is right. */
  readonly says: string;
  readonly keyed: string;
}

export interface PackageListing {
  readonly id: string;
  readonly name: string;
  readonly bytes: number;
  readonly broughtAt: number;
  readonly cameBy: 'file' | 'course' | 'made' | 'part';
  readonly state: 'reading' | 'ready' | 'failed';
  /** When somebody said that its findings are dealt with. */
  readonly settledAt: number | null;
  readonly summary: PackageSummary | null;
  readonly failure: SpokenFinding | null;
  /** How many things of it were put right here. */
  readonly changed: number;
}

/** Replicas of one exercise among the items of a package. */
export interface FamilyListing {
  readonly id: string;
  readonly title: string;
  /** Ids of the items. */
  readonly items: readonly string[];
  readonly varies: readonly Varies[];
}

export const JOB_KINDS = ['read', 'sync', 'snapshot', 'plan', 'send', 'undo', 'batch'] as const;
export type JobKind = (typeof JOB_KINDS)[number];

export interface JobView {
  readonly id: string;
  readonly kind: JobKind;
  readonly subject: string;
  readonly state: 'queued' | 'running' | 'done' | 'failed' | 'cancelled';
  readonly step: string;
  readonly done: number;
  readonly total: number;
  readonly failure: SpokenFinding | null;
}

/** One item as the reading room shows it. */
export interface ItemView {
  readonly item: Omit<Item, 'scoring'>;
  /** Identifiers of right choices. */
  readonly keyed: readonly string[];
  readonly key: readonly string[];
  /** Whether the key has to be said in words, since it is not marked in the question itself. */
  readonly keyText: boolean;
  /** Values of variables that the text prints, for the first seed. */
  readonly printed: Readonly<Record<string, string>>;
  /** Whether no answer can give more than the points stated. */
  readonly exact: boolean;
  readonly rule: string;
  readonly kind: string;
  /** What a few telling answers score. */
  readonly table: readonly { readonly answer: string; readonly score: number }[];
  readonly findings: readonly SpokenFinding[];
}

/** What one set of answers scores, and the feedback it brings up. */
export interface ItemScore {
  readonly score: string;
  readonly maximum: string;
  readonly feedback: Item['feedback'];
}

/** The first rows of a file of data. */
export interface DataPeep {
  readonly rows: readonly (readonly string[])[];
  /** Lines and columns of the whole file, and its size in bytes. */
  readonly lines: number;
  readonly columns: number;
  readonly bytes: number;
}

/** A rubric, as lists show it. */
export interface RubricListing {
  /** Where it is kept: `own`, a course or a package, by id. */
  readonly place: string;
  readonly placeName: string;
  readonly kind: 'own' | 'follower' | 'course' | 'package';
  readonly id: string;
  readonly title: string;
  readonly criteria: number;
  /** Null where it is not scored. */
  readonly points: number | null;
  readonly at: number;
  /** What a rubric of this content grades, in which course. */
  readonly grades: readonly string[];
  /** Whether the original of a follower has changed since it was taken over. */
  readonly behind: boolean;
}

/** How a table was read: what its columns say, the rubrics in it, or why there are none. */
export interface TableReading {
  /** The row that names the columns, from 0; -1 where none does. */
  readonly headerRow: number;
  readonly roles: readonly ColumnRole[];
  readonly by: 'remembered' | 'header' | 'values' | 'hand';
  readonly rubrics: readonly Rubric[];
  readonly findings: readonly SpokenFinding[];
  /** Why these columns make no rubric, in words. */
  readonly trouble: string | null;
}

/** What happened while nobody looked. */
export interface NoticeView {
  readonly id: string;
  readonly at: number;
  readonly text: string;
  readonly href: string;
  readonly tone: 'good' | 'look' | 'bad';
  readonly read: boolean;
}
