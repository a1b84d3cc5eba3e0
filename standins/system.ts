import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import { join } from 'node:path';
import express, { type NextFunction, type Request, type Response } from 'express';
import { contentRoutes } from './contentRoutes.ts';
import { HABITS, NO_HABITS, type Habit, type Habits } from './habits.ts';
import { gradebook, oneRoster, refuse } from './oneroster.ts';
import { coursePage, homePage } from './page.ts';
import { RemoteJobs } from './remoteJobs.ts';
import type { Course, RemoteJob, SystemOptions, User } from './types.ts';

const SAVE_AFTER_MS = 300;
/** The shape of what is kept; what an older one wrote is set aside, and the courses begin anew. */
const KEPT_AS = 2;

/**
 * A small course system over HTTP: OneRoster 1.2 for who and where, packages up and down as jobs for what.
 */
export class CourseSystem {
  readonly courses = new Map<string, Course>();
  readonly jobs: RemoteJobs;
  readonly habits: Habits;
  #server: Server | null = null;
  #saving: NodeJS.Timeout | null = null;

  constructor(readonly options: SystemOptions) {
    this.habits = { ...NO_HABITS, ...options.habits };
    const { courses, habits } = this;
    this.jobs = new RemoteJobs({ courses, options, habits, save: (course) => this.save(course) });
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
      put('jobs.json', [...this.jobs.all.values()]);
      for (const id of this.#changed)
        put(`course-${id}.json`, { keptAs: KEPT_AS, course: this.courses.get(id) });
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
      const name = `course-${id}.json`;
      const kept = read<{ keptAs?: number; course: Course }>(name);
      if (kept?.keptAs === KEPT_AS) this.courses.set(id, { ...this.courses.get(id)!, ...kept.course });
      else if (kept) renameSync(join(folder, name), join(folder, `${name}.older`));
    }
    for (const job of read<RemoteJob[]>('jobs.json') ?? []) this.jobs.all.set(job.id, job);
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
    app.use('/contents/v1', contentRoutes(this));
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
}
