import type { Holding } from '../model/holding.ts';
import type { Rubric } from '../model/rubric.ts';

/** What a transfer can put into a course. */
export const THING_KINDS = ['quiz', 'bank', 'link', 'rubric'] as const;
export type ThingKind = (typeof THING_KINDS)[number];

export interface CourseSection {
  readonly id: string;
  readonly name: string;
}

/**
 * A quiz, bank, link or rubric as a course shows it in its outline. Dates are ISO 8601 with zone; null is not
 * set.
 */
export interface CourseThing {
  readonly id: string;
  readonly kind: ThingKind;
  readonly title: string;
  /** The section it stands in; null where the system keeps such things outside of sections. */
  readonly section: string | null;
  readonly hidden: boolean;
  readonly opens: string | null;
  readonly closes: string | null;
  readonly instructions: string | null;
  readonly attempts: number | 'unlimited' | null;
  readonly timeLimitMinutes: number | null;
  readonly passMark: number | null;
  /** When students may look at their answers afterwards, in the system's own words. */
  readonly review: string | null;
  readonly items: number;
  readonly points: number;
  /** Attempts that students have open just now. */
  readonly openAttempts: number;
}

/**
 * A rubric of a course in full: its id is the thing's, and what it is attached to are items, things and
 * assignments of the course.
 */
export interface HeldRubric {
  readonly rubric: Rubric;
  /** Whether the course lets nobody change it. */
  readonly locked: boolean;
}

/**
 * Work of a course that is handed in and graded by hand, with no questions of its own. It does not travel;
 * the rubric that grades it does.
 */
export interface CourseAssignment {
  readonly id: string;
  readonly title: string;
  readonly points: number;
}

export interface CourseOutline {
  readonly sections: readonly CourseSection[];
  readonly things: readonly CourseThing[];
  /** Absent in outlines taken before assignments were asked for. */
  readonly assignments?: readonly CourseAssignment[];
  /** Absent in outlines taken before rubrics were asked for. */
  readonly rubrics?: readonly HeldRubric[];
}

/** One side of a transfer between courses: what the system's outline says and what its package holds. */
export interface Side {
  readonly outline: CourseOutline;
  readonly holding: Holding;
}

/**
 * How a section was found: by its name, a similar name, by position, by hand, not at all; or it stands
 * outside of sections.
 */
export type SectionBy = 'name' | 'similar' | 'position' | 'hand' | 'none' | 'outside';

/** Same content; an older or other version; only the name is the same; nothing of the kind. */
export type ExistingState = 'same' | 'version' | 'namesake' | 'none';

/**
 * What happens to a thing: lands new, stays away because it is there, takes an older one's place, stands
 * beside it.
 */
export type LandingAction = 'add' | 'skip' | 'replace' | 'keep';

/** How one thing lands. */
export interface Landing {
  readonly kind: ThingKind;
  /** The id in the source. */
  readonly node: string;
  readonly name: string;
  readonly section: string | null;
  readonly sectionBy: SectionBy;
  readonly existing: ExistingState;
  /** The thing of the destination that `existing` speaks of. */
  readonly there: string | null;
  readonly action: LandingAction;
  readonly hidden: boolean;
  readonly opens: string | null;
  readonly closes: string | null;
  /** The dates it has in the source; absent in plans made before they were kept. */
  readonly was?: { readonly opens: string | null; readonly closes: string | null };
  readonly review: string | null;
  /** What a rubric is worth; null where it is not scored. */
  readonly worth?: number | null;
  /** What a rubric grades in the source and goes along with it: its attachment to these is made again. */
  readonly carries?: readonly string[];
  /**
   * Items and assignments of the destination that a rubric is attached to, beside the items it brings its
   * attachment to.
   */
  readonly attach?: readonly string[];
  /** Assignments that a rubric grades in the source, and of whose name there is none in the destination. */
  readonly unmet?: readonly string[];
}

/** Which settings come along. */
export const SETTING_NAMES = [
  'dates',
  'attempts',
  'timeLimit',
  'passMark',
  'instructions',
  'visibility',
  'review',
] as const;
export type SettingName = (typeof SETTING_NAMES)[number];
export type SettingsChoice = Readonly<Record<SettingName, boolean>>;
