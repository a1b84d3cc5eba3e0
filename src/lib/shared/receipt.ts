import type {
  Comparison,
  ContainerInWords,
  PairInWords,
  SpokenDifference,
  SpokenFinding,
  State,
} from '@alforja/core';
import type { Arrival, SentPart } from './transfers.ts';

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
  readonly sent:
    | (SentPart & {
        readonly more: readonly SentPart[];
        readonly at: string | null;
        readonly items: number;
        readonly points: number;
        readonly losses: readonly SpokenFinding[];
      })
    | null;
  readonly arrived: {
    readonly name: string;
    readonly bytes: number;
    readonly sha256: string;
    readonly brought: string | null;
    readonly compared: string | null;
  } | null;
  /** What the last look found; "taken-back" once what arrived was taken out again. */
  readonly verdict: Comparison['verdict'] | 'taken-back' | null;
  /** What stood before it was taken back; null where it was not, or nobody had looked. */
  readonly foundBefore: Comparison['verdict'] | null;
  readonly takenBack: ReceiptTakenBack | null;
  readonly counts: Comparison['counts'] | null;
  readonly totals: Arrival['totals'] | null;
  readonly altered: readonly (PairInWords & { readonly name: string })[];
  readonly missing: Comparison['missing'];
  readonly extra: Comparison['extra'];
  readonly containers: readonly (ContainerInWords & { readonly name: string })[];
  readonly rubrics: readonly ReceiptRubric[];
  readonly missingFiles: readonly string[];
  readonly alteredFiles: readonly string[];
  /** What was put right before it was sent, thing by thing; where it was checked, what of it arrived so. */
  readonly onPurpose: readonly ReceiptChange[];
  /** The way it went: who, from where, to where, by which steps. */
  readonly way: ReceiptWay;
  /** Differences: left open, or accepted with a reason. */
  readonly differences: readonly ReceiptDifference[];
  readonly open: number;
  readonly accepted: number;
  /** Settings that no package of this format carries, with their values: what has to be set there. */
  readonly sheet: readonly SheetLine[];
  /** Where a page brings only the first of long lists: how many more each has. A receipt that is a file has them all. */
  readonly more?: Partial<Record<ReceiptList, number>>;
}

/** Lists of a receipt that may be long. */
export type ReceiptList =
  | 'altered'
  | 'missing'
  | 'extra'
  | 'containers'
  | 'missingFiles'
  | 'alteredFiles'
  | 'onPurpose'
  | 'leftOut'
  | 'differences'
  | 'losses';

export interface ReceiptTakenBack {
  readonly at: string;
  readonly by: string;
  readonly removed: readonly string[];
  /** What could not be taken out, in words. */
  readonly refused: readonly string[];
}

/** One act of the record, in words. */
export interface ReceiptAct {
  readonly at: string;
  readonly by: string;
  readonly act: string;
  readonly says: string;
  /** The steps of an earlier sending. */
  readonly steps: ReceiptWay['steps'];
}

export interface ReceiptWay {
  /** The source course; null for a file in hand. */
  readonly from: string | null;
  /** The destination course; null for a file. */
  readonly to: string | null;
  readonly by: string | null;
  readonly steps: readonly {
    readonly name: string;
    readonly state: string;
    readonly says: string;
    readonly ended: string | null;
  }[];
  /** Everything done before and after: earlier sendings, checks, mends, taking back. */
  readonly record: readonly ReceiptAct[];
  readonly planned: readonly { readonly kind: string; readonly name: string; readonly action: string }[];
  readonly notes: readonly string[];
}

export interface ReceiptDifference extends SpokenDifference {
  readonly accepted: { readonly reason: string; readonly by: string; readonly at: string } | null;
}

/** A rubric as it arrived, and what it grades there. */
export interface ReceiptRubric {
  readonly name: string;
  readonly state: State;
  readonly criteria: number;
  readonly points: number | null;
  readonly grades: readonly string[];
}

/** Whether something was left out on purpose. */
export const isLeftOut = ({ what, after }: Pick<ReceiptChange, 'what' | 'after'>): boolean =>
  what === 'leave-out' || (what === 'membership' && after === 'left out');

/** Something that was changed on purpose. */
export interface ReceiptChange {
  readonly name: string;
  readonly node: string;
  /** What of it, or what was done where it has not been checked yet. */
  readonly what: string;
  readonly before: string;
  readonly after: string;
}

/** A setting to be set by hand, or that was found set. */
export interface SheetLine {
  readonly quiz: string;
  readonly setting: string;
  readonly value: string;
  /** Found there as it should be; null where nobody has looked. */
  readonly found: boolean | null;
}
