import { createHash, randomUUID } from 'node:crypto';
import { arriving, exportCourse } from './course.ts';
import type { Habits } from './habits.ts';
import { importInto } from './imports.ts';
import type { Course, LandingOrder, RemoteJob, SystemOptions } from './types.ts';

const STEP_MS = 40;
const SLOW_MS = 2500;
const SLOW_EXPORT_MS = 900;
const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** An import that the course does not take, by a code that others act on. */
class RefusedImport extends Error {
  constructor(
    readonly code: string,
    message: string,
  ) {
    super(message);
  }
}

interface House {
  readonly courses: ReadonlyMap<string, Course>;
  readonly options: SystemOptions;
  readonly habits: Habits;
  readonly save: (course?: string) => void;
}

/** Exports and imports, which a system does in its own time. */
export class RemoteJobs {
  readonly all = new Map<string, RemoteJob>();
  /** Content of packages: asked for, or given and not yet read. Not kept over a restart. */
  readonly #packages = new Map<string, Uint8Array>();
  readonly #house: House;

  constructor(house: House) {
    this.#house = house;
  }

  /** Forgets what it was asked for, as a system that is set back does. */
  forget(): void {
    this.all.clear();
    this.#packages.clear();
  }

  package(job: string): Uint8Array | undefined {
    return this.#packages.get(job);
  }

  openExport(course: string, by: string, things: readonly string[] | null): RemoteJob {
    const job = this.#open({ kind: 'export', course, by, state: 'queued', key: null, things, landing: null });
    void this.#run(job, () => this.#export(job));
    return job;
  }

  /** The same key is the same import. */
  openImport(course: string, by: string, landing: LandingOrder, key: string | null): RemoteJob {
    const known = key === null ? undefined : [...this.all.values()].find((j) => j.key === key);
    return known ?? this.#open({ kind: 'import', course, by, state: 'waiting', key, things: null, landing });
  }

  /** Takes the package of an import; the same bytes again do nothing. @returns whether it is taken */
  give(job: RemoteJob, bytes: Uint8Array): boolean {
    const given = createHash('sha256').update(bytes).digest('hex');
    if (job.given !== null) return job.given === given;
    job.given = given;
    job.state = 'queued';
    this.#packages.set(job.id, bytes);
    void this.#run(job, () => this.#import(job));
    return true;
  }

  #open(over: Omit<RemoteJob, 'id' | 'error' | 'errorCode' | 'created' | 'given'>): RemoteJob {
    const job: RemoteJob = {
      ...over,
      id: randomUUID(),
      error: null,
      errorCode: null,
      created: [],
      given: null,
    };
    this.all.set(job.id, job);
    return job;
  }

  #export(job: RemoteJob): void {
    const { courses, options, habits } = this.#house;
    const course = courses.get(job.course)!;
    const title = options.roster.classes.find((c) => c.sourcedId === job.course)?.title ?? '';
    this.#packages.set(job.id, exportCourse(course, job.things, options.gives, habits, title));
  }

  #import(job: RemoteJob): void {
    const { courses, options, habits } = this.#house;
    const course = courses.get(job.course)!;
    const landing = job.landing!;
    if (habits.refusesSectionMismatch && landing.sourceSections !== course.sections.length)
      throw new RefusedImport(
        'section-count',
        `The source has ${landing.sourceSections} sections and this course ${course.sections.length}; nothing was imported.`,
      );
    const given = arriving(this.#packages.get(job.id)!);
    const count = landing.things.filter((t) => t.use === null).length;
    const breaks = habits.failsHalfWay && course.broken % 2 === 0;
    const stopAfter = breaks ? Math.floor(count / 2) : Infinity;
    const { givenName, familyName } = options.roster.users.find((u) => u.sourcedId === job.by)!;
    job.created = importInto(course, given, landing, habits, `${givenName} ${familyName}`, stopAfter);
    course.broken += habits.failsHalfWay ? 1 : 0;
    if (breaks) throw new Error(`It broke off after ${job.created.length} of ${count}.`);
    this.#packages.delete(job.id);
  }

  async #run(job: RemoteJob, work: () => void): Promise<void> {
    const { habits, save } = this.#house;
    await pause(STEP_MS);
    job.state = 'running';
    await pause(habits.slow ? (job.kind === 'import' ? SLOW_MS : SLOW_EXPORT_MS) : STEP_MS);
    try {
      work();
      job.state = 'completed';
    } catch (error) {
      job.state = 'failed';
      job.error = (error as Error).message;
      job.errorCode = error instanceof RefusedImport ? error.code : null;
    }
    save(job.kind === 'import' ? job.course : undefined);
  }
}
