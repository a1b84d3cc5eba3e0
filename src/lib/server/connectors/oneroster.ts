import { setTimeout as wait } from 'node:timers/promises';
import { z } from 'zod';
import { MAX_UPLOAD } from '../config.ts';
import {
  writeRubrics,
  type CourseAssignment,
  type CourseOutline,
  type HeldRubric,
  type Rubric,
  type ThingChange,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import type { RubricForm, SystemAbout } from '../../shared/courses.ts';
import { AboutShape, ThingShape } from '../../shared/courseShapes.ts';
import { Http, type HttpOptions } from './http.ts';
import {
  ConnectorError,
  type Connector,
  type LandingOrder,
  type ListedCourse,
  type RemoteJob,
} from './types.ts';

/** Shapes of 1EdTech OneRoster 1.2, as far as they are used; from memory of the published standard. */
const Ref = z.object({ sourcedId: z.string() });
const Term = z.object({
  sourcedId: z.string(),
  title: z.string(),
  startDate: z.string(),
  endDate: z.string(),
});
const Course = z.object({ sourcedId: z.string(), title: z.string(), courseCode: z.string().optional() });
const Class = z.object({
  sourcedId: z.string(),
  title: z.string(),
  classCode: z.string().optional(),
  course: Ref,
  terms: z.array(Ref),
});
const User = z.object({ sourcedId: z.string(), givenName: z.string(), familyName: z.string() });
const LineItem = z.object({
  sourcedId: z.string(),
  title: z.string(),
  resultValueMax: z.number().optional(),
});
const Enrollment = z.object({ role: z.string(), user: Ref, class: Ref });

const Holdings = z.object({
  holdings: z.array(
    z.object({
      class: z.string(),
      quizzes: z.number(),
      banks: z.number(),
      rubrics: z.number(),
      links: z.number(),
      items: z.number(),
      openAttempts: z.number(),
      mayChange: z.boolean(),
    }),
  ),
});
const Outline = z.object({
  sections: z.array(z.object({ id: z.string(), name: z.string() })),
  things: z.array(ThingShape),
});
const HeldRubricShape = z.object({
  id: z.string(),
  locked: z.boolean(),
  attachedTo: z.array(z.string()),
  form: z.enum(['csv', 'case1.0']),
  content: z.string(),
});
const Rubrics = z.object({ rubrics: z.array(HeldRubricShape) });
const Job = z.object({
  id: z.string(),
  state: z.enum(['queued', 'running', 'waiting', 'completed', 'failed']),
  error: z.string().nullable(),
  errorCode: z.string().nullable().default(null),
  created: z.array(z.string()),
});

const ROSTER = 'ims/oneroster/rostering/v1p2';
const GRADEBOOK = 'ims/oneroster/gradebook/v1p2';
const CONTENTS = 'contents/v1';
const PACKAGE_TIMEOUT_MS = 600_000;
const POLL_MS = [100, 200, 400, 1000];
/** A system that takes longer over one package is not going to be done with it. */
const LONGEST_JOB_MS = 2 * 3_600_000;
const enc = encodeURIComponent;

export type ReadRubrics = (
  files: readonly { readonly form: 'csv' | 'case1.0'; readonly content: string }[],
) => Promise<readonly Rubric[]>;

/** A system that speaks OneRoster 1.2 for who and where, and packages as jobs for what. */
export class OneRosterConnector implements Connector {
  readonly #http: Http;
  readonly #name: string;
  readonly #readRubrics: ReadRubrics;

  /** @param readRubrics reads the files that rubrics are given as, one rubric each, away from everything else */
  constructor(options: HttpOptions, readRubrics: ReadRubrics) {
    this.#readRubrics = readRubrics;
    this.#http = new Http(options);
    this.#name = options.name;
  }

  about(): Promise<SystemAbout> {
    return this.#http.json(`${CONTENTS}/about`, AboutShape, { what: 'signing in' });
  }

  async courses(): Promise<ListedCourse[]> {
    const roster = <T>(name: string, key: string, schema: z.ZodType<T>, query = ''): Promise<T[]> =>
      this.#http.pages(`${ROSTER}/${name}${query}`, key, schema, `the list of ${name}`);
    const [about, terms, courses, classes, users, enrollments, { holdings }] = await Promise.all([
      this.about(),
      roster('terms', 'academicSessions', Term),
      roster('courses', 'courses', Course),
      roster('classes', 'classes', Class, "?filter=status%3D'active'&sort=title"),
      roster('users', 'users', User),
      roster('enrollments', 'enrollments', Enrollment, "?filter=role%3D'teacher'"),
      this.#http.json(`${CONTENTS}/holdings`, Holdings, { what: 'what its courses hold' }),
    ]);
    const by = <T extends { sourcedId: string }>(list: readonly T[]): Map<string, T> =>
      new Map(list.map((x) => [x.sourcedId, x]));
    const [termOf, courseOf, userOf] = [by(terms), by(courses), by(users)];
    const held = new Map(holdings.map((h) => [h.class, h]));
    return classes.map((c): ListedCourse => {
      const term = c.terms.map((t) => termOf.get(t.sourcedId)).find((t) => t !== undefined);
      const course = courseOf.get(c.course.sourcedId);
      const teachers = enrollments.filter((e) => e.class.sourcedId === c.sourcedId);
      const people = teachers.flatMap((e) => userOf.get(e.user.sourcedId) ?? []);
      const {
        quizzes = 0,
        banks = 0,
        rubrics = 0,
        links = 0,
        items = 0,
        openAttempts = 0,
        mayChange = false,
      } = held.get(c.sourcedId) ?? {};
      return {
        classId: c.sourcedId,
        title: c.title || (course?.title ?? c.sourcedId),
        code: course?.courseCode ?? '',
        section: c.classCode ?? '',
        term: term?.title ?? '',
        termStart: term?.startDate ?? '',
        termEnd: term?.endDate ?? '',
        people: people.map((u) => `${u.givenName} ${u.familyName}`),
        quizzes,
        banks,
        rubrics,
        links,
        items,
        openAttempts,
        mayChange,
        own: teachers.some((e) => e.user.sourcedId === about.user.id),
      };
    });
  }

  async outline(classId: string): Promise<CourseOutline> {
    const outline = await this.#http.json(`${CONTENTS}/classes/${enc(classId)}/outline`, Outline, {
      what: 'the outline',
    });
    // Not asked for where there are none: a system may know nothing of rubrics.
    const some = outline.things.some((t) => t.kind === 'rubric');
    const [assignments, rubrics] = await Promise.all([
      this.#assignments(classId),
      some ? this.#rubrics(classId) : [],
    ]);
    return { ...outline, assignments, rubrics };
  }

  /**
   * What is graded in the class and is none of the things that travel; nothing where the system keeps no
   * gradebook.
   */
  async #assignments(classId: string): Promise<CourseAssignment[]> {
    try {
      const lines = await this.#http.pages(
        `${GRADEBOOK}/classes/${enc(classId)}/lineItems`,
        'lineItems',
        LineItem,
        'its assignments',
      );
      return lines.map((l) => ({ id: l.sourcedId, title: l.title, points: l.resultValueMax ?? 0 }));
    } catch (error) {
      if (error instanceof ConnectorError && error.status === 404) return [];
      throw error;
    }
  }

  async #rubrics(classId: string): Promise<HeldRubric[]> {
    const { rubrics } = await this.#http.json(`${CONTENTS}/classes/${enc(classId)}/rubrics`, Rubrics, {
      what: 'the rubrics',
    });
    const read = await this.#readRubrics(rubrics.map(({ form, content }) => ({ form, content })));
    if (read.length < rubrics.length)
      throw new ConnectorError(`${this.#name} gave a rubric that holds none.`);
    return rubrics.map(({ id, locked, attachedTo }, at) => ({
      locked,
      rubric: { ...read[at]!, id, attachedTo, origin: null },
    }));
  }

  async exportPackage(
    classId: string,
    things: readonly string[] | null,
    signal: AbortSignal,
  ): Promise<Uint8Array> {
    const opened = await this.#http.json(`${CONTENTS}/classes/${enc(classId)}/exports`, Job, {
      method: 'POST',
      json: { things },
      what: 'an export',
    });
    const job = await this.waitFor(opened.id, signal);
    if (job.state === 'failed')
      throw new ConnectorError(
        `${this.#name} could not export the course: ${job.error ?? 'it gave no reason'}`,
      );
    const answer = await this.#http.send(`${CONTENTS}/jobs/${enc(job.id)}/package`, {
      what: 'the exported package',
      timeoutMs: PACKAGE_TIMEOUT_MS,
      most: MAX_UPLOAD,
    });
    return answer.bytes;
  }

  openImport(classId: string, landing: LandingOrder, key: string): Promise<RemoteJob> {
    return this.#http.json(`${CONTENTS}/classes/${enc(classId)}/imports`, Job, {
      method: 'POST',
      json: { landing },
      headers: { 'Idempotency-Key': key },
      what: 'the opening of an import',
    });
  }

  givePackage(job: string, bytes: Uint8Array): Promise<RemoteJob> {
    return this.#ofJob(
      this.#http.json(`${CONTENTS}/jobs/${enc(job)}/package`, Job, {
        method: 'PUT',
        bytes,
        what: 'the upload of the package',
        timeoutMs: PACKAGE_TIMEOUT_MS,
      }),
    );
  }

  job(job: string): Promise<RemoteJob> {
    return this.#ofJob(this.#http.json(`${CONTENTS}/jobs/${enc(job)}`, Job, { what: 'how a job stands' }));
  }

  async #ofJob(answer: Promise<RemoteJob>): Promise<RemoteJob> {
    try {
      return await answer;
    } catch (error) {
      if (!(error instanceof ConnectorError) || error.status !== 404) throw error;
      throw new ConnectorError(
        `${this.#name} no longer knows what it was asked to do (it may have been set back or started anew). Go on, and it is asked again.`,
        404,
      );
    }
  }

  async waitFor(
    job: string,
    signal: AbortSignal,
    tell: (state: RemoteJob['state']) => void = () => undefined,
  ): Promise<RemoteJob> {
    const until = performance.now() + LONGEST_JOB_MS;
    for (let polls = 0; ; polls++) {
      signal.throwIfAborted();
      const now = await this.job(job);
      tell(now.state);
      if (now.state === 'completed' || now.state === 'failed') return now;
      if (performance.now() > until)
        throw new ConnectorError(
          `${this.#name} has worked on it for more than ${LONGEST_JOB_MS / 3_600_000} hours without an end. Go on later: it is asked then how it stands.`,
        );
      await wait(POLL_MS[Math.min(polls, POLL_MS.length - 1)], undefined, { signal });
    }
  }

  async newRubric(
    classId: string,
    rubric: Rubric,
    form: RubricForm,
    attachedTo: readonly string[],
    key: string,
  ): Promise<string> {
    const { bytes } = await writeRubrics([rubric], form, nodePlatform);
    const made = await this.#http.json(`${CONTENTS}/classes/${enc(classId)}/rubrics`, HeldRubricShape, {
      method: 'POST',
      json: { name: rubric.title, form, content: new TextDecoder().decode(bytes), attachedTo },
      headers: { 'Idempotency-Key': key },
      what: 'a new rubric',
    });
    return made.id;
  }

  async change(classId: string, thing: string, { attachedTo, ...change }: ThingChange): Promise<void> {
    if (attachedTo !== undefined)
      await this.#http.send(`${CONTENTS}/classes/${enc(classId)}/rubrics/${enc(thing)}/attachments`, {
        method: 'PUT',
        json: { attachedTo },
        what: 'the attaching of a rubric',
      });
    if (Object.keys(change).length === 0) return;
    await this.#http.send(`${CONTENTS}/classes/${enc(classId)}/things/${enc(thing)}`, {
      method: 'PATCH',
      json: change,
      what: 'a change',
    });
  }

  async remove(classId: string, thing: string): Promise<void> {
    await this.#http.send(`${CONTENTS}/classes/${enc(classId)}/things/${enc(thing)}`, {
      method: 'DELETE',
      what: 'taking a thing out',
      doneIfAgain: 404,
    });
  }
}
