import type {
  CourseAssignment,
  CourseOutline,
  CourseThing,
  Landing,
  RubricTarget,
  SettingsChoice,
  Target,
  Trouble,
} from '@alforja/core';

/** Plain values about courses and systems that cross between server and screens. */

/** What a system says of itself and of the holder of the token. */
export interface SystemAbout {
  readonly name: string;
  readonly takes: readonly Target[];
  readonly gives: string;
  /** How it takes rubrics beside a package; null where it takes none, absent where it was never asked. */
  readonly rubrics?: Extract<RubricTarget, 'csv' | 'case1.0'> | null;
  readonly user: {
    readonly id: string;
    readonly name: string;
    readonly email: string;
    readonly role: string;
  };
}

export interface SystemView {
  readonly id: string;
  readonly name: string;
  readonly address: string;
  readonly about: SystemAbout;
  readonly courses: number;
  readonly syncedAt: number | null;
  readonly trouble: string | null;
}

/** A section of a course in a term, as lists show it. */
export interface CourseListing {
  readonly id: string;
  readonly systemId: string;
  readonly system: string;
  readonly title: string;
  readonly code: string;
  readonly section: string;
  readonly term: string;
  /** ISO dates; empty where the system names no term. */
  readonly termStart: string;
  readonly termEnd: string;
  readonly people: readonly string[];
  readonly quizzes: number;
  readonly banks: number;
  readonly rubrics: number;
  readonly links: number;
  readonly items: number;
  readonly openAttempts: number;
  readonly mayChange: boolean;
  /** Whether the holder of the token teaches it. */
  readonly own: boolean;
}

/** A system, course, term and section in full. */
export const courseName = (c: CourseListing): string =>
  `${c.title} (${c.code}), section ${c.section}, ${c.term || 'no term'}, ${c.system}`;

/** The two halves of a course's id: the system's, and the class's within it. */
export function partsOfCourse(id: string): { readonly systemId: string; readonly classId: string } {
  const at = id.indexOf(':');
  return { systemId: id.slice(0, at), classId: id.slice(at + 1) };
}

export interface SnapshotView {
  readonly id: string;
  readonly packageId: string;
  readonly takenAt: number;
  readonly outline: CourseOutline;
}

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

export const STEPS = ['export', 'read', 'convert', 'upload', 'wait', 'back', 'attach', 'compare'] as const;
export type StepName = (typeof STEPS)[number];
export const STEP_WORDS: Readonly<Record<StepName, string>> = {
  export: 'Export from both courses',
  read: 'Read what they hold',
  convert: 'Plan and write the package',
  upload: 'Upload it',
  wait: 'Wait for the import',
  back: 'Read back what is there',
  attach: 'Attach rubrics',
  compare: 'Compare with the plan',
};

export interface RunStep {
  readonly name: StepName;
  readonly state: 'waiting' | 'running' | 'done' | 'failed' | 'passed';
  readonly startedAt: number | null;
  readonly endedAt: number | null;
  /** What it came to, in a few words. */
  readonly says: string;
}

/** One sending of a transfer. */
export interface Run {
  readonly id: string;
  readonly by: string;
  /** Nodes that this run is about; null is all that goes. */
  readonly only: readonly string[] | null;
  readonly startedAt: number;
  readonly endedAt: number | null;
  readonly steps: readonly RunStep[];
  /** The imports at the destination, one a package, in order. */
  readonly imports: readonly { readonly part: number; readonly job: string }[];
  /** Imports of a run that stopped, whose outcome was not yet seen. */
  readonly unseen: readonly string[];
  /** Ids of what all runs of this transfer made there. */
  readonly created: readonly string[];
  /** Older things that made way: hidden and renamed, with what they were. */
  /** Rubrics that were there already and were attached to what came, with what they were attached to before. */
  readonly attached?: readonly { readonly thing: string; readonly before: readonly string[] }[];
  readonly setAside: readonly { readonly thing: string; readonly title: string; readonly hidden: boolean }[];
  /** Things that happened on the way and did no harm, in words. */
  readonly notes: readonly string[];
  readonly failure: string | null;
  /** How many sections are declared to the destination: the source's, or its own where it insists. */
  readonly sectionsAs: 'source' | 'destination';
  /** What undoing took back and what it could not. */
  readonly undone: {
    readonly at: number;
    readonly removed: readonly string[];
    readonly refused: readonly string[];
  } | null;
}

export interface Plan {
  /** What it was made from: ticks, options, looks, format. */
  readonly key: string;
  readonly landings: readonly Landing[];
  /** Why it cannot be sent like this, in words. */
  readonly troubles: readonly string[];
}

/** An item of the destination that is graded by hand, or an assignment, to which a rubric can be attached. */
export interface Gradable {
  readonly kind: 'item' | 'assignment';
  readonly id: string;
  readonly name: string;
  readonly points: number;
}

/** A difference that somebody took as it is. */
export interface Decision {
  readonly key: string;
  readonly reason: string;
  readonly by: string;
  readonly at: number;
}

/** What the landing came to, beside the comparison of contents. */
export interface LandingCheck {
  readonly troubles: readonly Trouble[];
  /** Source node to thing of the destination. */
  readonly landed: Readonly<Record<string, string>>;
  /** Ids at the destination that each rubric is to be attached to, by landing. */
  readonly attachments?: Readonly<Record<string, readonly string[]>>;
  /** What things were to be called there, by source node. */
  readonly names: Readonly<Record<string, string>>;
  readonly outline: CourseOutline;
  readonly notes: readonly string[];
}

export type { CourseAssignment, CourseOutline, CourseThing, Landing };

export interface NoticeView {
  readonly id: string;
  readonly at: number;
  readonly text: string;
  readonly href: string;
  readonly tone: 'good' | 'look' | 'bad';
  readonly read: boolean;
}
