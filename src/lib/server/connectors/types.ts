import type { CourseOutline, Rubric, ThingChange, ThingKind } from '@alforja/core';
import type { CourseListing, RubricForm, SystemAbout } from '../../shared/courses.ts';

/** How each thing of a package is to land; `name` is its title in the package. */
export interface LandingOrder {
  readonly sourceSections: number;
  readonly things: readonly {
    readonly kind: ThingKind;
    readonly name: string;
    /** The thing that is there already and stands for it. */
    readonly use: string | null;
    readonly section: string | null;
    readonly position: number | null;
    readonly hidden: boolean;
    readonly opens: string | null;
    readonly closes: string | null;
    readonly review: string | null;
  }[];
}

export interface RemoteJob {
  readonly id: string;
  readonly state: 'queued' | 'running' | 'waiting' | 'completed' | 'failed';
  readonly error: string | null;
  /**
   * What kind of error it is, where the system says so: `section-count` where it counts its sections
   * otherwise.
   */
  readonly errorCode: string | null;
  /** Ids of what an import has made, also where it broke off. */
  readonly created: readonly string[];
}

export type ListedCourse = Omit<CourseListing, 'id' | 'systemId' | 'system'> & { readonly classId: string };

/**
 * The one interface to a course system. Every method throws ConnectorError with words a user can act on.
 */
export interface Connector {
  about(): Promise<SystemAbout>;
  /** The courses that the holder of the token may see. */
  courses(): Promise<ListedCourse[]>;
  /** What the course shows of itself, its rubrics in full. */
  outline(classId: string): Promise<CourseOutline>;
  /** Exports the whole course, or the things named; waits for the job and gives the package. */
  exportPackage(classId: string, things: readonly string[] | null, signal: AbortSignal): Promise<Uint8Array>;
  /** Opens an import; the same key is the same import, however often it is asked for. */
  openImport(classId: string, landing: LandingOrder, key: string): Promise<RemoteJob>;
  /** Hands over the package of an import; handing over the same one again does nothing. */
  givePackage(job: string, bytes: Uint8Array): Promise<RemoteJob>;
  /** How a job stands now. */
  job(job: string): Promise<RemoteJob>;
  /** Waits until a job has completed or failed. */
  waitFor(job: string, signal: AbortSignal, tell?: (state: RemoteJob['state']) => void): Promise<RemoteJob>;
  change(classId: string, thing: string, change: ThingChange): Promise<void>;
  /**
   * Makes a rubric of its own there, copied from nothing; the same key is the same rubric.
   * @returns its id
   */
  newRubric(
    classId: string,
    rubric: Rubric,
    form: RubricForm,
    attachedTo: readonly string[],
    key: string,
  ): Promise<string>;
  remove(classId: string, thing: string): Promise<void>;
}

export class ConnectorError extends Error {
  constructor(
    message: string,
    readonly status: number | null = null,
  ) {
    super(message);
  }
}
