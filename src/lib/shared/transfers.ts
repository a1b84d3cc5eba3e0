import type {
  ArrivalFacts,
  Comparison,
  CourseOutline,
  Edit,
  Finding,
  Landing,
  LandingOverride,
  LossRepair,
  Mend,
  OnPurpose,
  PouchTotals,
  Quiz,
  Rubric,
  SettingsChoice,
  SpokenDifference,
  SpokenFinding,
  State,
  Tally,
  Target,
  Tick,
  Trouble,
} from '@alforja/core';
import type { CourseListing } from './courses.ts';
import type { StepName } from './stages.ts';

/** Plain values about transfers that cross between server and screens. */

/** Which settings come along, and how things meet what is there. */
export interface TransferOptions {
  readonly settings: SettingsChoice;
  readonly byPosition: boolean;
  readonly onVersion: 'replace' | 'keep' | 'skip';
}

export const DEFAULT_OPTIONS: TransferOptions = {
  settings: {
    dates: true,
    attempts: true,
    timeLimit: true,
    passMark: true,
    instructions: true,
    visibility: false,
    review: true,
  },
  byPosition: false,
  onVersion: 'replace',
};

export type Overrides = Readonly<Record<string, LandingOverride>>;

/** A loss in words; where a change of the source avoids it, what that does. */
export type ForecastLoss = SpokenFinding & {
  readonly avoid?: {
    /** Its place among all findings of the plan. */
    readonly at: number;
    readonly says: string;
    /** Who scores otherwise by it, in words; null where nobody does. */
    readonly scores: string | null;
  };
};

/** How what is ticked lands, in which format it travels, and what that loses. */
export interface Plan {
  /** What it was made from; another basis, and it has to be made again. */
  readonly basis: string;
  readonly landings: readonly Landing[];
  readonly target: Target;
  /** What the format cannot carry. */
  readonly findings: readonly Finding[];
  /** What would avoid losses, by their place among the findings; and whether anybody scores otherwise by it. */
  readonly repairs: readonly Pick<LossRepair, 'at' | 'edits' | 'scores'>[];
  /** How much each format that can be chosen loses; empty where nobody is to choose. */
  readonly losses: readonly { readonly target: Target; readonly losses: number }[];
  /** Why it cannot be sent like this, in words. */
  readonly troubles: readonly string[];
}

export interface SendingStep {
  readonly name: StepName;
  readonly state: 'waiting' | 'running' | 'done' | 'failed' | 'passed';
  readonly startedAt: number | null;
  readonly endedAt: number | null;
  /** What it came to, in a few words. */
  readonly says: string;
}

/**
 * Why a sending stopped: the destination counts its sections otherwise, somebody stopped it, or anything
 * else.
 */
export interface SendingFailure {
  readonly reason: 'section-count' | 'stopped' | 'other';
  readonly detail: string;
}

/** What a sending is about, where it is not all of the plan: landings in a course, nodes in a file. */
export type SendingPart = { readonly landings: readonly string[] } | { readonly ticks: readonly Tick[] };

/**
 * One sending of a transfer, or one check of what arrived; kept after every step, so that it is taken up
 * where it stood.
 */
export interface Sending {
  readonly id: string;
  readonly by: string;
  readonly only: SendingPart | null;
  readonly startedAt: number;
  readonly endedAt: number | null;
  readonly steps: readonly SendingStep[];
  /** The imports at the destination, one a package, in order. */
  readonly imports: readonly { readonly part: number; readonly job: string }[];
  /** Imports of a sending that stopped, whose outcome was not yet seen. */
  readonly unseen: readonly string[];
  /** Ids of what all sendings of this transfer made there. */
  readonly created: readonly string[];
  /**
   * Rubrics that were there already and were attached to what came, with what they were attached to before.
   */
  readonly attached: readonly { readonly thing: string; readonly before: readonly string[] }[];
  /** Older things that made way: hidden and renamed, with what they were. */
  readonly setAside: readonly {
    readonly thing: string;
    readonly title: string;
    readonly hidden: boolean;
  }[];
  /** Things that happened on the way and did no harm, in words. */
  readonly notes: readonly string[];
  readonly failure: SendingFailure | null;
  /** How many sections are declared to the destination: the source's, or its own where it insists. */
  readonly sectionsAs: 'source' | 'destination';
  /** Whoever asked for a check after it; null where there was none. */
  readonly checkedBy: string | null;
  /** That what it made was taken back; it stays, whatever is checked afterwards. */
  readonly undone: TakenBack | null;
}

/** One file that was written. */
export interface SentPart {
  readonly sha256: string;
  readonly bytes: number;
  readonly name: string;
}

export type SentQuiz = Pick<Quiz, 'id' | 'title' | 'settings'>;

/** What was written: packages in their order, a file of rubrics last. */
export interface Sent {
  readonly parts: readonly SentPart[];
  readonly items: number;
  readonly points: number;
  readonly findings: readonly Finding[];
  readonly target: Target;
  /** The ticks it was written from, so that a later change shows. */
  readonly ticks: readonly Tick[];
  /** The edits that stood over the source, each with what stood there before. */
  readonly layer: readonly Edit[];
  /** The quizzes as they stood in the source; null where a record was made before that was kept. */
  readonly quizzes: readonly SentQuiz[] | null;
  /** Packages of only what was missing or altered, written after the whole. */
  readonly again: readonly { readonly at: number; readonly parts: readonly SentPart[] }[];
}

/** What was written, as its page shows it. */
export type SentShown = Pick<Sent, 'parts' | 'items' | 'points' | 'again'>;

/** A rubric of the plan and what became of it. */
export interface ArrivedRubric {
  readonly state: State;
  readonly planned: Rubric | null;
  readonly arrived: Rubric | null;
}

/** Where and how things stand in the course they landed in. */
interface LandingCheck {
  readonly troubles: readonly Trouble[];
  /** Landing to thing of the destination. */
  readonly landed: Readonly<Record<string, string>>;
  /** Ids at the destination that each rubric is to be attached to, by landing. */
  readonly attachments: Readonly<Record<string, readonly string[]>>;
  readonly outline: CourseOutline;
}

export interface ChangedOnPurpose extends OnPurpose {
  readonly name: string;
}

/** What the comparison of plan and destination came to. */
export interface Arrival extends ArrivalFacts {
  /** What was put right in the source before it was sent, and arrived so. */
  readonly onPurpose: readonly ChangedOnPurpose[];
  readonly totals: { readonly left: PouchTotals; readonly right: PouchTotals };
  readonly rubrics: readonly ArrivedRubric[];
  /** The written file and the arrived file it speaks of. */
  readonly sentSha256: string;
  readonly arrivedSha256: string;
  /** Null for a file that came back. */
  readonly landing: LandingCheck | null;
  readonly notes: readonly string[];
}

/** Something done with a transfer, by whom and when. Acts are added and never changed. */
interface Act {
  readonly at: number;
  readonly by: string;
}
export type RecordEntry = Act &
  (
    | {
        /** An earlier sending, with the steps it went. */
        readonly act: 'sent';
        /** Only what was missing or altered. */
        readonly part: boolean;
        readonly steps: readonly SendingStep[];
        readonly failure: string | null;
      }
    | {
        readonly act: 'checked';
        readonly tally: Tally;
      }
    | {
        /** Set, taken out or sent again there; and what that undid of what was mended before, in words. */
        readonly act: 'mended';
        readonly mended: readonly string[];
        /** Things of the destination that were set. */
        readonly things: readonly string[];
        readonly undoes: readonly string[];
      }
    | {
        readonly act: 'taken-back';
        readonly removed: readonly string[];
        readonly refused: readonly string[];
      }
  );

/** That what arrived was taken back, and no sending came after it. */
export interface TakenBack extends Act {
  readonly removed: readonly string[];
  /** What could not be taken out, in words; empty where all of it is gone. */
  readonly refused: readonly string[];
}

/** A difference that somebody took as it is. */
export interface Decision {
  /** The difference's id. */
  readonly key: string;
  readonly reason: string;
  readonly by: string;
  readonly at: number;
}

/** A difference in words, what can be done about it, and what somebody decided. */
export interface JudgedDifference extends SpokenDifference {
  readonly id: string;
  readonly about: 'item' | 'family' | 'container' | 'file' | 'landing';
  /** How an item differs; null where it is not about one. */
  readonly itemState: 'altered' | 'missing' | 'extra' | null;
  /** What of it differs: facets, how a thing differs as a whole, or what is otherwise at the landing. */
  readonly sort: readonly string[];
  /** The source items it is about, where it is about items. */
  readonly items: readonly string[];
  readonly mend: Mend['do'] | null;
  /** What was mended there before and is undone by sending it again, in words. */
  readonly undoes: readonly string[];
  readonly decision: Decision | null;
}

/** Where a transfer goes: a course, or a file to keep or to mail. */
export type Destination =
  | { readonly kind: 'file' }
  | {
      readonly kind: 'course';
      readonly course: CourseListing | null;
      readonly outline: CourseOutline | null;
      /** The formats its system takes. */
      readonly takes: readonly Target[];
    };

/** A plan without what its format loses. */
export type PlanShown = Omit<Plan, 'findings' | 'repairs'>;

/** Everything the screens show of a transfer beside its contents. */
export interface TransferState {
  readonly from: CourseListing | null;
  readonly to: Destination;
  /** Null while it is being worked out. */
  readonly plan: PlanShown | null;
  readonly options: TransferOptions;
  /** Landings of which something was set by hand. */
  readonly byHand: readonly string[];
  readonly targetChosen: boolean;
  readonly sending: Sending | null;
  readonly takenBack: TakenBack | null;
  readonly running: boolean;
  /** Differences nobody has decided on, and those taken as they are. */
  readonly open: number;
  readonly accepted: number;
  readonly notes: readonly string[];
}

/**
 * How a transfer or a batch stands: not sent yet, under way, stopped, sent and not checked, with differences
 * nobody has decided on, done, or removed from the course again.
 */
export const LINE_STATES = ['draft', 'sending', 'stopped', 'sent', 'open', 'done', 'taken-back'] as const;
export type LineState = (typeof LINE_STATES)[number];

/** A transfer or a batch, as the list of both shows it. */
export interface TransferLine {
  readonly kind: 'transfer' | 'batch';
  readonly id: string;
  readonly title: string;
  /** Where it comes from, or how many courses a batch has. */
  readonly from: string;
  readonly state: LineState;
  readonly createdAt: number;
  /** When it last went on. */
  readonly lastAt: number;
  readonly counts: Comparison['counts'] | null;
  readonly open: number;
  readonly accepted: number;
  readonly takenBack: TakenBack | null;
  /** Why it stopped, in words. */
  readonly trouble: string | null;
}

export interface TransferListing {
  readonly id: string;
  readonly title: string;
  readonly packageName: string;
  readonly state: LineState;
  /** Why it stopped, in words. */
  readonly trouble: string | null;
  readonly createdAt: number;
  readonly sentAt: number | null;
  readonly comparedAt: number | null;
  readonly counts: Comparison['counts'] | null;
  readonly verdict: Comparison['verdict'] | null;
  /** Differences nobody has decided on, and those taken as they are. */
  readonly open: number;
  readonly accepted: number;
  readonly takenBack: TakenBack | null;
}

/** An item of the destination that is graded by hand, or an assignment, to which a rubric can be attached. */
export interface Gradable {
  readonly kind: 'item' | 'assignment';
  readonly id: string;
  readonly name: string;
  readonly points: number;
}
