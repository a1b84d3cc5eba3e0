import type { HeldRubric, RubricForm } from './formats/rubrics.ts';
import type { Habits } from './habits.ts';
import type { Held } from './held.ts';

/** What one simulated course system is made of. */

export const THING_KINDS = ['quiz', 'bank', 'link', 'rubric'] as const;
export type ThingKind = (typeof THING_KINDS)[number];

/** What a system keeps of a thing beside its content. */
export interface ThingState {
  readonly id: string;
  readonly kind: ThingKind;
  section: string | null;
  hidden: boolean;
  opens: string | null;
  closes: string | null;
  review: string | null;
  openAttempts: number;
  /** Whether it came in with an import. */
  copied?: boolean;
  /** Whether nobody may change it. */
  locked?: boolean;
}

interface Assignment {
  readonly id: string;
  readonly title: string;
  readonly points: number;
}

export interface Course {
  readonly id: string;
  readonly sections: readonly { readonly id: string; readonly name: string }[];
  /** Work that is handed in: it stays where it is. */
  readonly assignments: readonly Assignment[];
  things: ThingState[];
  held: Held;
  rubrics: HeldRubric[];
  /** Content of files by path, as base64. */
  files: Record<string, string>;
  /** Whether other teachers may look into it. */
  readonly shared: boolean;
  /** Imports that were broken off half way, so that the next one goes through. */
  broken: number;
  next: number;
}

/** OneRoster 1.2 rostering data, the fields used here. */
export interface Roster {
  readonly terms: readonly Term[];
  readonly courses: readonly RosterCourse[];
  readonly classes: readonly RosterClass[];
  readonly users: readonly User[];
  readonly enrollments: readonly Enrollment[];
}
interface Base {
  readonly sourcedId: string;
  readonly status: 'active' | 'tobedeleted';
  readonly dateLastModified: string;
}
interface Ref {
  readonly href: string;
  readonly sourcedId: string;
  readonly type: string;
}
export interface Term extends Base {
  readonly title: string;
  readonly type: 'term';
  readonly startDate: string;
  readonly endDate: string;
  readonly schoolYear: string;
}
interface RosterCourse extends Base {
  readonly title: string;
  readonly courseCode: string;
}
export interface RosterClass extends Base {
  readonly title: string;
  readonly classCode: string;
  readonly classType: 'scheduled';
  readonly course: Ref;
  readonly terms: readonly Ref[];
}
export interface User extends Base {
  readonly givenName: string;
  readonly familyName: string;
  readonly email: string;
  readonly enabledUser: 'true' | 'false';
  readonly roles: readonly {
    readonly roleType: 'primary';
    readonly role: 'administrator' | 'teacher' | 'student';
  }[];
}
export interface Enrollment extends Base {
  readonly role: 'teacher' | 'student' | 'administrator';
  readonly user: Ref;
  readonly class: Ref;
}

/** What comes with an import: how each thing of the package is to land. */
export interface LandingOrder {
  /** How many sections the source has. */
  readonly sourceSections: number;
  readonly things: readonly LandingThing[];
}
export interface LandingThing {
  readonly kind: ThingKind;
  /** Its title in the package. */
  readonly name: string;
  /** `use`: it is there already, under this id; what draws from it draws from that. */
  readonly use: string | null;
  readonly section: string | null;
  /** The place of its section in the source, from 0; null where it stands in none. */
  readonly position: number | null;
  readonly hidden: boolean;
  readonly opens: string | null;
  readonly closes: string | null;
  readonly review: string | null;
}

export interface RemoteJob {
  readonly id: string;
  readonly kind: 'export' | 'import';
  readonly course: string;
  readonly by: string;
  state: 'queued' | 'running' | 'waiting' | 'completed' | 'failed';
  error: string | null;
  /** What kind of error, where others act on it: `section-count`. */
  errorCode: string | null;
  /** Ids of things an import has made, also where it broke off. */
  created: string[];
  readonly key: string | null;
  readonly things: readonly string[] | null;
  readonly landing: LandingOrder | null;
  /** SHA-256 of the package an import was given. */
  given: string | null;
}

export interface SystemOptions {
  readonly name: string;
  /** The formats it takes, the one it likes best first. */
  readonly takes: readonly string[];
  readonly gives: 'cartridge' | 'qti2.1';
  readonly rubrics: RubricForm;
  readonly roster: Roster;
  readonly courses: readonly Course[];
  /** Access token to user id. */
  readonly tokens: Readonly<Record<string, string>>;
  readonly habits?: Partial<Habits>;
  /** Where its state is kept; null keeps it in memory. */
  readonly folder: string | null;
  readonly port: number;
}
