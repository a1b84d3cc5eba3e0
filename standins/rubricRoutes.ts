import express, { type RequestHandler, type Request } from 'express';
import { z } from 'zod';
import type { Habits } from './habits.ts';
import { refuse } from './oneroster.ts';
import { readRubrics, type HeldRubric, type RubricForm } from './formats/rubrics.ts';
import { addRubric, attach, rubricResources } from './heldRubrics.ts';
import type { Course } from './types.ts';

const NewRubric = z.object({
  name: z.string(),
  form: z.enum(['csv', 'case1.0']),
  content: z.string(),
  attachedTo: z.array(z.string()),
});
const Attachments = z.object({ attachedTo: z.array(z.string()) });

interface System {
  readonly course: (request: Request) => Course;
  /** Lets through only who may change the course. */
  readonly changing: RequestHandler;
  readonly form: RubricForm;
  readonly habits: Habits;
  readonly save: (course: string) => void;
}

function oneOf(form: RubricForm, content: string): HeldRubric {
  const [rubric, ...more] = readRubrics(form, content);
  if (!rubric || more.length > 0) throw new Error('That is not one rubric.');
  return rubric;
}

/** Rubrics stand beside the packages: given out one by one, made anew, and attached. */
export function rubricRoutes(router: express.Router, { course, changing, form, habits, save }: System): void {
  const json = express.json({ limit: '10mb' });
  /** Rubrics that were made anew, by the key of the request. */
  const made = new Map<string, string>();
  router.get(
    '/classes/:class/rubrics',
    (request, response) => void response.json({ rubrics: rubricResources(course(request), form) }),
  );
  router.post('/classes/:class/rubrics', changing, json, (request, response) => {
    const body = NewRubric.safeParse(request.body ?? {});
    if (!body.success) return refuse(response, 400, 'invaliddata', z.prettifyError(body.error));
    const { name, content, attachedTo } = body.data;
    const key = request.get('Idempotency-Key');
    const before = key === undefined ? undefined : made.get(key);
    try {
      const id = before ?? addRubric(course(request), oneOf(body.data.form, content), name, {});
      if (key !== undefined) made.set(key, id);
      attach(course(request), id, attachedTo, habits);
      save(course(request).id);
      response.status(201).json(rubricResources(course(request), form).find((r) => r.id === id));
    } catch (error) {
      refuse(response, 400, 'invaliddata', (error as Error).message);
    }
  });
  router.put('/classes/:class/rubrics/:rubric/attachments', changing, json, (request, response) => {
    const body = Attachments.safeParse(request.body ?? {});
    if (!body.success) return refuse(response, 400, 'invaliddata', z.prettifyError(body.error));
    const id = request.params['rubric'] as string;
    if (!course(request).rubrics.some((r) => r.id === id))
      return refuse(response, 404, 'unknownobject', 'There is no such rubric in the course.');
    const unknown = attach(course(request), id, body.data.attachedTo, habits);
    if (unknown.length > 0)
      return refuse(response, 400, 'invaliddata', `The course has no ${unknown.join(', ')}.`);
    save(course(request).id);
    response.status(204).end();
  });
}
