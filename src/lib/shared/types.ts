import type {
  Bank,
  Comparison,
  FileRef,
  Finding,
  Format,
  Item,
  Link,
  Meaning,
  OutlineNode,
  Quiz,
  Source,
  SpokenFinding,
} from '@alforja/core';

/** Plain values that cross between server and screens. */

export interface PackageSummary {
  readonly title: string;
  readonly format: Format;
  readonly items: number;
  readonly points: number;
  readonly quizzes: number;
  readonly banks: number;
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
  readonly state: 'reading' | 'ready' | 'failed';
  readonly summary: PackageSummary | null;
  readonly failure: SpokenFinding | null;
}

export interface JobView {
  readonly id: string;
  readonly kind: 'read' | 'forecast' | 'send' | 'compare';
  readonly subject: string;
  readonly state: 'queued' | 'running' | 'done' | 'failed' | 'cancelled';
  readonly step: string;
  readonly done: number;
  readonly total: number;
  readonly failure: SpokenFinding | null;
}

export type NodeKind = 'quiz' | 'bank' | 'item' | 'link';
export interface Tick {
  readonly kind: NodeKind;
  readonly nodeId: string;
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
}

export interface Arrival {
  readonly comparison: Comparison;
  readonly left: readonly PouchRow[];
  readonly right: readonly PouchRow[];
  readonly totals: { readonly left: PouchTotals; readonly right: PouchTotals };
  /** The written file and the arrived file it speaks of. */
  readonly sentSha256: string;
  readonly arrivedSha256: string;
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
  readonly missingFiles: readonly string[];
}
