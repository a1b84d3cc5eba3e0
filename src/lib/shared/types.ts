import type {
  Bank,
  ColumnRole,
  Comparison,
  Dependency,
  FileRef,
  Finding,
  Format,
  Item,
  Link,
  Meaning,
  OutlineNode,
  Quiz,
  Rubric,
  Source,
  SpokenFinding,
  State,
} from '@alforja/core';

import type { LandingCheck } from './courses.ts';

/** Plain values that cross between server and screens. */

export interface PackageSummary {
  readonly title: string;
  readonly format: Format;
  readonly items: number;
  readonly points: number;
  readonly quizzes: number;
  readonly banks: number;
  /** Absent in summaries made before rubrics were read. */
  readonly rubrics?: number;
  readonly errors: number;
  readonly warnings: number;
  readonly notes: number;
  /** What packages of one origin have in common. */
  readonly origin: string;
}

export interface RuleRow {
  readonly id: string;
  readonly name: string;
  readonly origin: string;
  readonly label: string;
  readonly means: Meaning;
  readonly createdAt: number;
}

/** A holding without its items. */
export interface Tree {
  readonly source: Source;
  readonly format: Format;
  readonly title: string;
  readonly quizzes: readonly Quiz[];
  readonly banks: readonly Bank[];
  readonly rubrics: readonly Rubric[];
  readonly links: readonly Link[];
  readonly files: readonly FileRef[];
  readonly outline: readonly OutlineNode[];
  readonly findings: readonly Finding[];
}

/** What a list shows of an item. */
export interface ItemRow {
  readonly seq: number;
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly points: number;
  readonly trouble: string | null;
}

export interface StoredItem {
  readonly nodeId: string;
  readonly title: string;
  readonly stem: string;
  readonly kinds: string;
  readonly points: number;
  readonly fingerprint: string;
  readonly category: string | null;
  readonly json: string;
}

export interface PackageListing {
  readonly id: string;
  readonly name: string;
  readonly bytes: number;
  readonly broughtAt: number;
  readonly cameBy: 'file' | 'course' | 'made';
  readonly state: 'reading' | 'ready' | 'failed';
  readonly summary: PackageSummary | null;
  readonly failure: SpokenFinding | null;
}

export const JOB_KINDS = [
  'read',
  'forecast',
  'send',
  'compare',
  'sync',
  'fetch',
  'plan',
  'carry',
  'undo',
  'batch',
] as const;
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

/** `without` is a bank that stays behind though a ticked quiz draws from it; `without-rubric` a rubric that an item which goes is graded by. */
export const NODE_KINDS = ['quiz', 'bank', 'item', 'link', 'rubric', 'without', 'without-rubric'] as const;
export type NodeKind = (typeof NODE_KINDS)[number];
export interface Tick {
  readonly kind: NodeKind;
  readonly nodeId: string;
}

/** What the ticks bring along and what they leave behind. */
export interface ContentsView {
  readonly items: number;
  readonly points: number;
  readonly total: number;
  readonly rubrics: number;
  readonly rubricsTotal: number;
  readonly dependencies: readonly Dependency[];
  /** Banks left behind knowingly, and what becomes of the draws from them. */
  readonly broken: readonly { readonly bank: string; readonly quiz: string; readonly pick: number }[];
  /** Rubrics left behind knowingly, and what then has none. */
  readonly ungraded: readonly { readonly rubric: string; readonly item: string }[];
  readonly behind: readonly { readonly kind: NodeKind; readonly title: string; readonly id: string }[];
}

/** Things that stand together in the source: its sections, or the folders of a package. */
export interface ThingGroup {
  readonly id: string;
  readonly name: string;
  readonly nodes: readonly Tick[];
}

/** What a format cannot carry of what is ticked. */
export interface Forecast {
  readonly target: string;
  readonly ticks: readonly Tick[];
  readonly findings: readonly Finding[];
}

/** One file that was written. */
export interface SentPart {
  readonly sha256: string;
  readonly bytes: number;
  readonly name: string;
}

export interface Sent extends SentPart {
  readonly items: number;
  readonly points: number;
  readonly findings: readonly Finding[];
  readonly target: string;
  /** The rest of a series, where one file cannot hold everything. */
  readonly more: readonly SentPart[];
  /** The ticks it was written from, so that a later change shows. */
  readonly ticks: readonly Tick[];
}

/** One side's line in the two-pouch view. */
export interface PouchRow {
  readonly id: string;
  readonly n: number;
  readonly name: string;
  readonly kind: string;
  readonly key: string;
  readonly points: number;
}

export interface PouchTotals {
  readonly items: number;
  readonly points: number;
  readonly quizzes: number;
  readonly banks: number;
  readonly draws: number;
  readonly files: number;
  readonly rubrics?: number;
}

export interface Arrival {
  readonly comparison: Comparison;
  readonly left: readonly PouchRow[];
  readonly right: readonly PouchRow[];
  readonly totals: { readonly left: PouchTotals; readonly right: PouchTotals };
  /** Absent in comparisons made before rubrics were carried. */
  readonly rubrics?: readonly ArrivedRubric[];
  /** The written file and the arrived file it speaks of. */
  readonly sentSha256: string;
  readonly arrivedSha256: string;
  /** Where and how things stand in the course they landed in; null for a file that came back. */
  readonly landing: LandingCheck | null;
}

/** A rubric of the plan and what became of it. */
export interface ArrivedRubric {
  readonly state: State;
  readonly planned: Rubric | null;
  readonly arrived: Rubric | null;
}

/** What lists show of an arrival. */
export interface Tally {
  readonly verdict: Comparison['verdict'];
  readonly counts: Comparison['counts'];
  /** Differences nobody has decided on. */
  readonly open: number;
}

export interface TransferListing {
  readonly id: string;
  readonly title: string;
  readonly packageName: string;
  readonly createdAt: number;
  readonly sentAt: number | null;
  readonly comparedAt: number | null;
  readonly counts: Comparison['counts'] | null;
  readonly verdict: Comparison['verdict'] | null;
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

/** What a receipt states; times are ISO 8601, UTC. */
export interface Receipt {
  readonly transfer: {
    readonly id: string;
    readonly title: string;
    readonly started: string | null;
    readonly format: string;
  };
  readonly source: {
    readonly name: string;
    readonly bytes: number;
    readonly sha256: string;
    readonly brought: string | null;
  };
  readonly sent: {
    readonly name: string;
    readonly bytes: number;
    readonly sha256: string;
    readonly more: readonly SentPart[];
    readonly at: string | null;
    readonly items: number;
    readonly points: number;
    readonly losses: readonly SpokenFinding[];
  } | null;
  readonly arrived: {
    readonly name: string;
    readonly bytes: number;
    readonly sha256: string;
    readonly brought: string | null;
    readonly compared: string | null;
  } | null;
  readonly verdict: Comparison['verdict'] | null;
  readonly counts: Comparison['counts'] | null;
  readonly totals: Arrival['totals'] | null;
  readonly altered: readonly (Comparison['pairs'][number] & { readonly name: string })[];
  readonly missing: Comparison['missing'];
  readonly extra: Comparison['extra'];
  readonly containers: Comparison['containers'];
  readonly rubrics: readonly ReceiptRubric[];
  readonly missingFiles: readonly string[];
  /** What a transfer into a course adds; null for a file. */
  readonly course: CourseReceipt | null;
  /** Settings that no package of this format carries, with their values: what has to be set there. */
  readonly sheet: readonly SheetLine[];
}

/** A rubric as it arrived, and what it grades there. */
export interface ReceiptRubric {
  readonly name: string;
  readonly state: State;
  readonly criteria: number;
  readonly points: number | null;
  readonly grades: readonly string[];
}

export interface CourseReceipt {
  readonly from: string | null;
  readonly to: string;
  readonly by: string;
  readonly steps: readonly {
    readonly name: string;
    readonly state: string;
    readonly says: string;
    readonly ended: string | null;
  }[];
  readonly planned: readonly { readonly kind: string; readonly name: string; readonly action: string }[];
  /** Differences: left open, or accepted with a reason. */
  readonly differences: readonly {
    readonly what: string;
    readonly planned: string;
    readonly found: string;
    readonly accepted: { readonly reason: string; readonly by: string; readonly at: string } | null;
  }[];
  readonly open: number;
  readonly accepted: number;
  readonly notes: readonly string[];
}

/** A setting to be set by hand, or that was found set. */
export interface SheetLine {
  readonly quiz: string;
  readonly setting: string;
  readonly value: string;
  /** Found there as it should be; null where nobody has looked. */
  readonly found: boolean | null;
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
