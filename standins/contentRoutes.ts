import express, { type NextFunction, type Request, type Response } from 'express';
import { z } from 'zod';
import { change, Change } from './change.ts';
import { outlineOf, removeThing, titleOf } from './course.ts';
import { refuse } from './oneroster.ts';
import { rubricRoutes } from './rubricRoutes.ts';
import type { CourseSystem } from './system.ts';
import { THING_KINDS, type Course, type User } from './types.ts';

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

/** How long a slow system takes to answer. */
const SLOW_ANSWER_MS = 800;

/** What a course holds: its outline, packages up and down as jobs, its things set and taken out. */
export function contentRoutes(system: CourseSystem): express.Router {
  const router = express.Router();
  const { name, takes, gives, rubrics } = system.options;
  const user = (response: Response): User => response.locals['user'] as User;
  const json = express.json({ limit: '10mb' });
  const course = (request: Request): Course => system.courses.get(request.params['class'] as string)!;
  const changing = (request: Request, response: Response, next: NextFunction): void =>
    system.mayChange(user(response), course(request).id)
      ? next()
      : refuse(response, 403, 'forbidden', 'You may look into this course, not change it.');

  router.get('/about', (_, response) => {
    const { sourcedId, givenName, familyName, email, roles } = user(response);
    const own = { id: sourcedId, name: `${givenName} ${familyName}`, email, role: roles[0]!.role };
    response.json({ name, takes, gives, rubrics, user: own });
  });
  router.get('/holdings', (_, response) => {
    const seen = system.seen(user(response));
    const holdings = [...system.courses.values()]
      .filter((c) => seen.has(c.id))
      .map((c) => ({ ...countsOf(c), mayChange: system.mayChange(user(response), c.id) }));
    response.json({ holdings });
  });
  router.param('class', (_, response, next, id: string) => {
    if (!system.courses.has(id) || !system.seen(user(response)).has(id))
      return refuse(response, 404, 'unknownobject', 'There is no such course, or it is not yours to see.');
    next();
  });
  router.get(
    '/classes/:class/outline',
    (request, response) => void response.json(outlineOf(course(request))),
  );
  router.patch('/classes/:class/things/:thing', changing, json, (request, response) => {
    const body = Change.safeParse(request.body ?? {});
    if (!body.success) return refuse(response, 400, 'invaliddata', z.prettifyError(body.error));
    const id = request.params['thing'] as string;
    if (course(request).things.some((t) => t.id === id && t.locked))
      return refuse(response, 409, 'conflict', 'It is locked; nobody can change it.');
    if (!change(course(request), id, body.data))
      return refuse(response, 404, 'unknownobject', 'There is no such thing in the course.');
    system.save(course(request).id);
    response.json(outlineOf(course(request)));
  });
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
    system.save(course(request).id);
    response.status(204).end();
  });
  jobRoutes(router, system, { course, changing, user });
  rubricRoutes(router, {
    course,
    changing,
    form: rubrics,
    habits: system.habits,
    save: (id) => system.save(id),
  });
  return router;
}

const countsOf = (c: Course) => ({
  class: c.id,
  quizzes: c.held.quizzes.length,
  banks: c.held.banks.length,
  rubrics: c.rubrics.length,
  links: c.held.links.length,
  items: c.held.items.length,
  openAttempts: c.things.reduce((sum, t) => sum + t.openAttempts, 0),
});

interface Ways {
  readonly course: (request: Request) => Course;
  readonly changing: express.RequestHandler;
  readonly user: (response: Response) => User;
}

function jobRoutes(router: express.Router, system: CourseSystem, { course, changing, user }: Ways): void {
  const json = express.json({ limit: '10mb' });
  const answer = answering(system);
  router.post('/classes/:class/exports', json, (request, response) => {
    const body = Export.safeParse(request.body ?? {});
    if (!body.success) return refuse(response, 400, 'invaliddata', z.prettifyError(body.error));
    const by = user(response).sourcedId;
    response.status(202).json(system.jobs.openExport(course(request).id, by, body.data.things));
  });
  router.post('/classes/:class/imports', changing, json, (request, response) => {
    const body = Import.safeParse(request.body ?? {});
    if (!body.success) return refuse(response, 400, 'invaliddata', z.prettifyError(body.error));
    const key = request.get('Idempotency-Key') ?? null;
    const by = user(response).sourcedId;
    const job = system.jobs.openImport(course(request).id, by, body.data.landing, key);
    answer(response, `post ${key ?? job.id}`, job);
  });
  router.put('/jobs/:job/package', express.raw({ type: () => true, limit: '1gb' }), (request, response) => {
    const job = system.jobs.all.get(request.params['job'] as string);
    if (!job || job.kind !== 'import')
      return refuse(response, 404, 'unknownobject', 'There is no such import.');
    if (!system.jobs.give(job, new Uint8Array(request.body as Buffer)))
      return refuse(response, 409, 'conflict', 'This import was given another package.');
    answer(response, `put ${job.id}`, job);
  });
  router.get('/jobs/:job', (request, response) => {
    const job = system.jobs.all.get(request.params['job']);
    if (!job) return refuse(response, 404, 'unknownobject', 'There is no such job.');
    response.json(job);
  });
  router.get('/jobs/:job/package', (request, response) => {
    const bytes = system.jobs.package(request.params['job']);
    if (!bytes) return refuse(response, 404, 'unknownobject', 'There is no such package any more.');
    response.type('application/octet-stream').send(Buffer.from(bytes));
  });
}

/** With the habit of losing answers, the first answer to each request never gets there. */
function answering({ habits }: CourseSystem): (response: Response, request: string, body: unknown) => void {
  const lost = new Set<string>();
  const now = (response: Response, request: string, body: unknown): void => {
    if (habits.losesAnswers && !lost.has(request)) {
      lost.add(request);
      response.req.socket.destroy();
      return;
    }
    response.status(202).json(body);
  };
  return (response, request, body) => {
    if (habits.slow) setTimeout(() => now(response, request, body), SLOW_ANSWER_MS);
    else now(response, request, body);
  };
}
