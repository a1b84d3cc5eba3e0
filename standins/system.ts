import { createHash, randomUUID } from 'node:crypto';
import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import { join } from 'node:path';
import express, { type NextFunction, type Request, type Response } from 'express';
import { THING_KINDS } from '@alforja/core';
import { z } from 'zod';
import { arriving, exportCourse, importInto, outlineOf, removeThing, titleOf } from './course.ts';
import { rubricRoutes } from './rubricRoutes.ts';
import { HABITS, NO_HABITS, setPoints, type Habit, type Habits } from './habits.ts';
import { gradebook, oneRoster, refuse } from './oneroster.ts';
import { coursePage, homePage } from './page.ts';
import type { Course, RemoteJob, SystemOptions, User } from './types.ts';

const Thing = z.object({
  kind: z.enum(THING_KINDS),
  name: z.string(),
  use: z.string().nullable(),
  section: z.string().nullable(),
  position: z.number().int().nullable(),
  hidden: z.boolean(),
  opens: z.string().nullable(),
  closes: z.string().nullable(),
  review: z.string().nullable(),
});
const Import = z.object({
  landing: z.object({ sourceSections: z.number().int(), things: z.array(Thing) }),
});
const Export = z.object({ things: z.array(z.string()).nullable().default(null) });
const Change = z
  .object({
    title: z.string(),
    section: z.string().nullable(),
    hidden: z.boolean(),
    opens: z.string().nullable(),
    closes: z.string().nullable(),
    review: z.string().nullable(),
    instructions: z.string().nullable(),
    attempts: z.union([z.number(), z.literal('unlimited')]).nullable(),
    timeLimitMinutes: z.number().nullable(),
    passMark: z.number().nullable(),
    points: z.array(z.object({ item: z.string(), points: z.number().positive() })),
  })
  .partial();

const STEP_MS = 40;
const SLOW_MS = 2500;
const SLOW_EXPORT_MS = 900;
const SLOW_ANSWER_MS = 800;
const SAVE_AFTER_MS = 300;
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

/**
 * A small course system over HTTP: OneRoster 1.2 for who and where, packages up and down as jobs for what.
 */
export class CourseSystem {
  readonly courses = new Map<string, Course>();
  readonly jobs = new Map<string, RemoteJob>();
  readonly habits: Habits;
  /** Content of packages: asked for, or given and not yet read. Not kept over a restart. */
  readonly #packages = new Map<string, Uint8Array>();
  readonly #lost = new Set<string>();
  #server: Server | null = null;
  #saving: NodeJS.Timeout | null = null;

  constructor(readonly options: SystemOptions) {
    this.habits = { ...NO_HABITS, ...options.habits };
    for (const course of options.courses) this.courses.set(course.id, structuredClone(course));
    this.#load();
  }

  get address(): string {
    return `http://127.0.0.1:${(this.#server?.address() as { port: number }).port}`;
  }

  async start(): Promise<this> {
    const app = this.#routes();
    await new Promise<void>((done, fail) => {
      this.#server = app.listen(this.options.port, '127.0.0.1', (error?: Error) =>
        error ? fail(error) : done(),
      );
    });
    return this;
  }

  async stop(): Promise<void> {
    this.save(undefined, true);
    this.#server?.closeAllConnections();
    await new Promise((done) => this.#server?.close(done) ?? done(null));
  }

  /** Ids of the classes a user may look into: their own, shared ones, or all for an administrator. */
  seen = (user: User): Set<string> => {
    if (user.roles.some((r) => r.role === 'administrator')) return new Set(this.courses.keys());
    const own = this.#taught(user);
    return new Set([...this.courses.values()].filter((c) => own.has(c.id) || c.shared).map((c) => c.id));
  };

  #taught(user: User): Set<string> {
    return new Set(
      this.options.roster.enrollments
        .filter((e) => e.user.sourcedId === user.sourcedId && e.role === 'teacher')
        .map((e) => e.class.sourcedId),
    );
  }

  mayChange(user: User, course: string): boolean {
    return user.roles.some((r) => r.role === 'administrator') || this.#taught(user).has(course);
  }

  setHabit(habit: Habit, on: boolean): void {
    this.habits[habit] = on;
    this.save();
  }

  readonly #changed = new Set<string>();

  /**
   * Written with a short delay, and only what has changed, so that a busy system does not write all the time.
   */
  save(course?: string, now = false): void {
    const { folder } = this.options;
    if (folder === null) return;
    if (course !== undefined) this.#changed.add(course);
    const write = (): void => {
      this.#saving = null;
      mkdirSync(folder, { recursive: true });
      const put = (name: string, data: unknown): void => {
        writeFileSync(join(folder, `${name}.tmp`), JSON.stringify(data));
        renameSync(join(folder, `${name}.tmp`), join(folder, name));
      };
      put('habits.json', this.habits);
      put('jobs.json', [...this.jobs.values()]);
      for (const id of this.#changed) put(`course-${id}.json`, this.courses.get(id));
      this.#changed.clear();
    };
    if (now) {
      if (this.#saving) clearTimeout(this.#saving);
      write();
    } else this.#saving ??= setTimeout(write, SAVE_AFTER_MS);
  }

  #load(): void {
    const { folder } = this.options;
    if (folder === null) return;
    const read = <T>(name: string): T | null => {
      try {
        return JSON.parse(readFileSync(join(folder, name), 'utf8')) as T;
      } catch {
        return null;
      }
    };
    Object.assign(this.habits, read<Partial<Habits>>('habits.json') ?? {});
    for (const id of this.courses.keys()) {
      const kept = read<Course>(`course-${id}.json`);
      if (kept) this.courses.set(id, { ...this.courses.get(id)!, ...kept });
    }
    for (const job of read<RemoteJob[]>('jobs.json') ?? []) this.jobs.set(job.id, job);
  }

  #routes(): express.Express {
    const app = express();
    app.get('/', (_, response) => void response.type('html').send(homePage(this)));
    app.get('/courses/:id', (request, response) => {
      const course = this.courses.get(request.params['id'] as string);
      if (!course) return void response.status(404).type('text').send('No such course.');
      response.type('html').send(coursePage(this, course));
    });
    app.post('/habits', express.urlencoded({ extended: false }), (request, response) => {
      const on = request.body as Record<string, unknown>;
      for (const habit of Object.keys(HABITS) as Habit[]) this.setHabit(habit, on[habit] !== undefined);
      response.redirect(303, '/');
    });
    app.put('/habits', express.json(), (request, response) => {
      for (const [habit, on] of Object.entries(request.body as Record<string, boolean>))
        if (Object.hasOwn(HABITS, habit)) this.setHabit(habit as Habit, on);
      response.json(this.habits);
    });
    app.use(['/ims', '/contents'], (request, response, next) => this.#who(request, response, next));
    app.use('/ims/oneroster/rostering/v1p2', oneRoster(this.options.roster, this.seen));
    app.use('/ims/oneroster/gradebook/v1p2', gradebook(this.courses, this.seen));
    app.use('/contents/v1', this.#contents());
    return app;
  }

  #who(request: Request, response: Response, next: NextFunction): void {
    const token = /^Bearer (.+)$/u.exec(request.headers.authorization ?? '')?.[1] ?? '';
    const id = Object.hasOwn(this.options.tokens, token) ? this.options.tokens[token] : null;
    const user = this.options.roster.users.find((u) => u.sourcedId === id);
    if (!user) return refuse(response, 401, 'unauthorisedrequest', 'The token is not known here.');
    response.locals['user'] = user;
    next();
  }

  #contents(): express.Router {
    const router = express.Router();
    const user = (response: Response): User => response.locals['user'] as User;
    const { name, takes, gives, rubrics } = this.options;
    router.get('/about', (_, response) => {
      const { sourcedId, givenName, familyName, email, roles } = user(response);
      response.json({
        name,
        takes,
        gives,
        rubrics,
        user: { id: sourcedId, name: `${givenName} ${familyName}`, email, role: roles[0]!.role },
      });
    });
    router.get('/holdings', (_, response) => {
      const seen = this.seen(user(response));
      response.json({
        holdings: [...this.courses.values()]
          .filter((c) => seen.has(c.id))
          .map((c) => ({
            class: c.id,
            quizzes: c.holding.quizzes.length,
            banks: c.holding.banks.length,
            rubrics: c.holding.rubrics.length,
            links: c.holding.links.length,
            items: c.holding.items.length,
            openAttempts: c.things.reduce((sum, t) => sum + t.openAttempts, 0),
            mayChange: this.mayChange(user(response), c.id),
          })),
      });
    });
    router.param('class', (_, response, next, id: string) => {
      if (!this.courses.has(id) || !this.seen(user(response)).has(id))
        return refuse(response, 404, 'unknownobject', 'There is no such course, or it is not yours to see.');
      next();
    });
    const course = (request: Request): Course => this.courses.get(request.params['class'] as string)!;
    const changing = (request: Request, response: Response, next: NextFunction): void =>
      this.mayChange(user(response), course(request).id)
        ? next()
        : refuse(response, 403, 'forbidden', 'You may look into this course, not change it.');
    router.get(
      '/classes/:class/outline',
      (request, response) => void response.json(outlineOf(course(request))),
    );
    router.post('/classes/:class/exports', express.json({ limit: '10mb' }), (request, response) => {
      const body = Export.safeParse(request.body ?? {});
      if (!body.success) return refuse(response, 400, 'invaliddata', z.prettifyError(body.error));
      const job = this.#job({
        kind: 'export',
        course: course(request).id,
        by: user(response).sourcedId,
        state: 'queued',
        key: null,
        things: body.data.things,
        landing: null,
      });
      void this.#runExport(job);
      response.status(202).json(job);
    });
    router.post('/classes/:class/imports', changing, express.json({ limit: '10mb' }), (request, response) => {
      const body = Import.safeParse(request.body ?? {});
      if (!body.success) return refuse(response, 400, 'invaliddata', z.prettifyError(body.error));
      const key = request.get('Idempotency-Key') ?? null;
      const known = key === null ? undefined : [...this.jobs.values()].find((j) => j.key === key);
      const job =
        known ??
        this.#job({
          kind: 'import',
          course: course(request).id,
          by: user(response).sourcedId,
          state: 'waiting',
          key,
          things: null,
          landing: body.data.landing,
        });
      this.#answer(response, `post ${key ?? job.id}`, 202, job);
    });
    router.put('/jobs/:job/package', express.raw({ type: () => true, limit: '1gb' }), (request, response) => {
      const job = this.jobs.get(request.params['job'] as string);
      if (!job || job.kind !== 'import')
        return refuse(response, 404, 'unknownobject', 'There is no such import.');
      const bytes = new Uint8Array(request.body as Buffer);
      const given = createHash('sha256').update(bytes).digest('hex');
      if (job.given !== null && job.given !== given)
        return refuse(response, 409, 'conflict', 'This import was given another package.');
      if (job.given === null) {
        job.given = given;
        job.state = 'queued';
        this.#packages.set(job.id, bytes);
        void this.#runImport(job);
      }
      this.#answer(response, `put ${job.id}`, 202, job);
    });
    router.get('/jobs/:job', (request, response) => {
      const job = this.jobs.get(request.params['job']);
      if (!job) return refuse(response, 404, 'unknownobject', 'There is no such job.');
      response.json(job);
    });
    router.get('/jobs/:job/package', (request, response) => {
      const bytes = this.#packages.get(request.params['job']);
      if (!bytes) return refuse(response, 404, 'unknownobject', 'There is no such package any more.');
      response.type('application/octet-stream').send(Buffer.from(bytes));
    });
    router.patch(
      '/classes/:class/things/:thing',
      changing,
      express.json({ limit: '10mb' }),
      (request, response) => {
        const body = Change.safeParse(request.body ?? {});
        if (!body.success) return refuse(response, 400, 'invaliddata', z.prettifyError(body.error));
        const { things } = course(request);
        if (things.some((t) => t.id === request.params['thing'] && t.locked))
          return refuse(response, 409, 'conflict', 'It is locked; nobody can change it.');
        if (!this.#change(course(request), request.params['thing'] as string, body.data))
          return refuse(response, 404, 'unknownobject', 'There is no such thing in the course.');
        this.save(course(request).id);
        response.json(outlineOf(course(request)));
      },
    );
    router.delete('/classes/:class/things/:thing', changing, (request, response) => {
      const thing = course(request).things.find((t) => t.id === request.params['thing']);
      if (!thing) return refuse(response, 404, 'unknownobject', 'There is no such thing in the course.');
      if (thing.openAttempts > 0)
        return refuse(
          response,
          409,
          'conflict',
          `Students have ${thing.openAttempts} attempts open in “${titleOf(course(request), thing)}”; it cannot be taken out.`,
        );
      removeThing(course(request), thing.id);
      this.save(course(request).id);
      response.status(204).end();
    });
    rubricRoutes(router, {
      course,
      changing,
      form: this.options.rubrics,
      habits: this.habits,
      save: (id) => this.save(id),
    });
    return router;
  }

  #job(over: Omit<RemoteJob, 'id' | 'error' | 'errorCode' | 'created' | 'given'>): RemoteJob {
    const job: RemoteJob = {
      ...over,
      id: randomUUID(),
      error: null,
      errorCode: null,
      created: [],
      given: null,
    };
    this.jobs.set(job.id, job);
    return job;
  }

  /** With the habit of losing answers, the first answer to each request never gets there. */
  #answer(response: Response, request: string, status: number, body: unknown): void {
    if (this.habits.slow) {
      setTimeout(() => this.#answerNow(response, request, status, body), SLOW_ANSWER_MS);
      return;
    }
    this.#answerNow(response, request, status, body);
  }

  #answerNow(response: Response, request: string, status: number, body: unknown): void {
    if (this.habits.losesAnswers && !this.#lost.has(request)) {
      this.#lost.add(request);
      response.req.socket.destroy();
      return;
    }
    response.status(status).json(body);
  }

  async #runExport(job: RemoteJob): Promise<void> {
    await this.#work(job, () => {
      const course = this.courses.get(job.course)!;
      const title = this.options.roster.classes.find((c) => c.sourcedId === job.course)?.title ?? '';
      this.#packages.set(job.id, exportCourse(course, job.things, this.options.gives, this.habits, title));
    });
  }

  async #runImport(job: RemoteJob): Promise<void> {
    await this.#work(job, async () => {
      const course = this.courses.get(job.course)!;
      const landing = job.landing!;
      if (this.habits.refusesSectionMismatch && landing.sourceSections !== course.sections.length)
        throw new RefusedImport(
          'section-count',
          `The source has ${landing.sourceSections} sections and this course ${course.sections.length}; nothing was imported.`,
        );
      const given = await arriving('import.zip', this.#packages.get(job.id)!);
      const count = landing.things.filter((t) => t.use === null).length;
      const breaks = this.habits.failsHalfWay && course.broken % 2 === 0;
      const stopAfter = breaks ? Math.floor(count / 2) : Infinity;
      const { givenName, familyName } = this.options.roster.users.find((u) => u.sourcedId === job.by)!;
      job.created = importInto(course, given, landing, this.habits, `${givenName} ${familyName}`, stopAfter);
      course.broken += this.habits.failsHalfWay ? 1 : 0;
      if (breaks) throw new Error(`It broke off after ${job.created.length} of ${count}.`);
      this.#packages.delete(job.id);
    });
  }

  async #work(job: RemoteJob, work: () => void | Promise<void>): Promise<void> {
    await pause(STEP_MS);
    job.state = 'running';
    await pause(this.habits.slow ? (job.kind === 'import' ? SLOW_MS : SLOW_EXPORT_MS) : STEP_MS);
    try {
      await work();
      job.state = 'completed';
    } catch (error) {
      job.state = 'failed';
      job.error = (error as Error).message;
      job.errorCode = error instanceof RefusedImport ? error.code : null;
    }
    this.save(job.kind === 'import' ? job.course : undefined);
  }

  #change(course: Course, id: string, change: z.infer<typeof Change>): boolean {
    const thing = course.things.find((t) => t.id === id);
    if (!thing) return false;
    const { section, hidden, opens, closes, review, title, points, ...settings } = change;
    const given = { section, hidden, opens, closes, review };
    Object.assign(thing, Object.fromEntries(Object.entries(given).filter(([, v]) => v !== undefined)));
    const worth = new Map(points?.map((p) => [p.item, p.points]));
    course.holding = {
      ...course.holding,
      quizzes: course.holding.quizzes.map((q) =>
        q.id !== id
          ? q
          : {
              ...q,
              title: title ?? q.title,
              settings: { ...q.settings, ...settings },
              sections: q.sections.map((s) => ({
                ...s,
                draw:
                  s.draw && worth.has(s.draw.pool[0] ?? '')
                    ? { ...s.draw, pointsEach: worth.get(s.draw.pool[0]!)! }
                    : s.draw,
              })),
            },
      ),
      banks: course.holding.banks.map((b) => (b.id === id ? { ...b, title: title ?? b.title } : b)),
      links: course.holding.links.map((l) => (l.id === id ? { ...l, title: title ?? l.title } : l)),
      rubrics: course.holding.rubrics.map((r) => (r.id === id ? { ...r, title: title ?? r.title } : r)),
      items: course.holding.items.map((i) => (worth.has(i.id) ? setPoints(i, worth.get(i.id)!) : i)),
    };
    return true;
  }
}
