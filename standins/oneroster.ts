import type { Request, Response, Router } from 'express';
import express from 'express';
import type { Course, Roster, User } from './types.ts';

/**
 * The rostering service of 1EdTech OneRoster 1.2 (REST binding, "Rostering Service"), reading only: the
 * collections used here with filter, sort, orderBy, limit, offset and fields. From memory of the published
 * standard.
 */
export function oneRoster(roster: Roster, seen: (user: User) => ReadonlySet<string>): Router {
  const router = express.Router();
  const collections: Record<string, (user: User) => readonly object[]> = {
    academicSessions: () => roster.terms,
    terms: () => roster.terms,
    courses: (user) => {
      const classes = roster.classes.filter((c) => seen(user).has(c.sourcedId));
      const ids = new Set(classes.map((c) => c.course.sourcedId));
      return roster.courses.filter((c) => ids.has(c.sourcedId));
    },
    classes: (user) => roster.classes.filter((c) => seen(user).has(c.sourcedId)),
    users: () => roster.users,
    enrollments: (user) => roster.enrollments.filter((e) => seen(user).has(e.class.sourcedId)),
  };
  for (const [name, list] of Object.entries(collections)) {
    const key = name === 'terms' ? 'academicSessions' : name;
    router.get(`/${name}`, (request, response) =>
      answer(request, response, key, list(response.locals['user'] as User)),
    );
    const one = key.replace(/ses$/u, 's').replace(/s$/u, '');
    router.get(`/${name}/:id`, (request, response) => {
      const found = list(response.locals['user'] as User).find(
        (x) => (x as { sourcedId: string }).sourcedId === request.params['id'],
      );
      if (!found) return void refuse(response, 404, 'unknownobject', 'There is no such object.');
      response.json({ [name === 'classes' ? 'class' : one]: found });
    });
  }
  return router;
}

/**
 * Of the gradebook service of OneRoster 1.2 the line items of a class: here what is handed in and graded by
 * hand. From memory of the published standard ("Gradebook Service", getLineItemsForClass).
 */
export function gradebook(
  courses: ReadonlyMap<string, Course>,
  seen: (user: User) => ReadonlySet<string>,
): Router {
  const router = express.Router();
  router.get('/classes/:class/lineItems', (request, response) => {
    const id = request.params['class'];
    const course = courses.get(id);
    if (!course || !seen(response.locals['user'] as User).has(id))
      return refuse(response, 404, 'unknownobject', 'There is no such class, or it is not yours to see.');
    const of = (type: string, sourcedId: string) => ({ href: `/${type}/${sourcedId}`, sourcedId, type });
    const all = course.assignments.map((a) => ({
      sourcedId: a.id,
      status: 'active',
      dateLastModified: '2026-08-20T09:00:00.000Z',
      title: a.title,
      assignDate: '2026-09-07',
      dueDate: '2026-12-18',
      class: of('class', id),
      category: of('category', 'assignment'),
      resultValueMin: 0,
      resultValueMax: a.points,
    }));
    answer(request, response, 'lineItems', all);
  });
  return router;
}

const MAX_LIMIT = 200;

function answer(request: Request, response: Response, key: string, all: readonly object[]): void {
  const query = (name: string): string | null =>
    typeof request.query[name] === 'string' ? request.query[name] : null;
  const limit = Number(query('limit') ?? 100);
  const offset = Number(query('offset') ?? 0);
  if (!Number.isInteger(limit) || limit < 1 || !Number.isInteger(offset) || offset < 0)
    return refuse(response, 400, 'invaliddata', 'limit and offset have to be whole numbers.');
  let list = [...all];
  const filter = query('filter');
  if (filter !== null) {
    const test = parseFilter(filter);
    if (!test) return refuse(response, 400, 'invalid_filter_field', `The filter cannot be read: ${filter}`);
    list = list.filter(test);
  }
  const sort = query('sort');
  if (sort !== null) {
    const by = query('orderBy') === 'desc' ? -1 : 1;
    list.sort((a, b) => by * String(fieldOf(a, sort)).localeCompare(String(fieldOf(b, sort))));
  }
  const size = Math.min(limit, MAX_LIMIT);
  const page = list.slice(offset, offset + size);
  response.set('X-Total-Count', String(list.length));
  if (offset + size < list.length) {
    const next = new URL(request.originalUrl, `http://${request.headers.host}`);
    next.searchParams.set('limit', String(size));
    next.searchParams.set('offset', String(offset + size));
    response.set('Link', `<${next.href}>; rel="next"`);
  }
  const fields = query('fields')?.split(',');
  response.json({
    [key]: fields ? page.map((x) => Object.fromEntries(fields.map((f) => [f, fieldOf(x, f)]))) : page,
  });
}

/** `field op 'value'`, two of them joined by AND or OR. */
function parseFilter(text: string): ((x: object) => boolean) | null {
  const [first, joint, second] = text.split(/(?<!\s)\s+(AND|OR)\s+/u);
  const tests = [first, second].filter((t) => t !== undefined).map(parseTest);
  if (tests.some((t) => t === null)) return null;
  return (x) => (joint === 'OR' ? tests.some((t) => t!(x)) : tests.every((t) => t!(x)));
}

function parseTest(text: string): ((x: object) => boolean) | null {
  const found = /^([\w.]+)\s*(!=|>=|<=|=|>|<|~)\s*'([^']*)'$/u.exec(text.trim());
  if (!found) return null;
  const [, field, op, value] = found as unknown as [string, string, string, string];
  return (x) => {
    const held = String(fieldOf(x, field) ?? '');
    const order = held.localeCompare(value);
    switch (op) {
      case '=':
        return held === value;
      case '!=':
        return held !== value;
      case '>':
        return order > 0;
      case '>=':
        return order >= 0;
      case '<':
        return order < 0;
      case '<=':
        return order <= 0;
      default:
        return held.toLowerCase().includes(value.toLowerCase());
    }
  };
}

const fieldOf = (x: object, path: string): unknown =>
  path
    .split('.')
    .reduce<unknown>(
      (at, name) =>
        at !== null && typeof at === 'object' && Object.hasOwn(at, name)
          ? (at as Record<string, unknown>)[name]
          : undefined,
      x,
    );

/** An error as the standard words it (imsx status information). */
export function refuse(response: Response, status: number, code: string, description: string): void {
  response.status(status).json({
    imsx_codeMajor: 'failure',
    imsx_severity: 'error',
    imsx_description: description,
    imsx_CodeMinor: {
      imsx_codeMinorField: [{ imsx_codeMinorFieldName: 'TargetEndSystem', imsx_codeMinorFieldValue: code }],
    },
  });
}
