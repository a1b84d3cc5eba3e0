import { outlineOf, type OutlinedThing } from './course.ts';
import { tag } from './formats/xml.ts';
import { HABITS, type Habit } from './habits.ts';
import { escape } from '../demo/qti12.ts';
import type { CourseSystem } from './system.ts';
import type { Course, RosterClass } from './types.ts';

/** Bare pages, so that a person can see with their own eyes what a course holds and which habits are on. */

const STYLE = [
  'body{font:15px/1.5 monospace;max-width:70em;margin:2em auto;padding:0 1em;color:#111;background:#fff}',
  'table{border-collapse:collapse}',
  'td,th{border:1px solid #111;padding:2px 8px;text-align:left}',
  'a{color:#00c}',
].join('');

const page = (title: string, ...body: readonly string[]): string =>
  `<!doctype html>${tag(
    'html',
    { lang: 'en' },
    tag(
      'head',
      {},
      tag('meta', { charset: 'utf-8' }),
      tag('title', {}, escape(title)),
      tag('style', {}, STYLE),
    ),
    tag('body', {}, ...body),
  )}`;

const heading = (level: 1 | 2, text: string): string => tag(`h${level}`, {}, escape(text));
/** A cell is written also where nothing stands in it. */
const row = (cell: 'td' | 'th', ...cells: readonly string[]): string =>
  tag('tr', {}, ...cells.map((c) => `<${cell}>${c}</${cell}>`));

const COLUMNS = ['course', 'section', 'term', 'quizzes', 'banks', 'questions', 'rubrics'];

export function homePage(system: CourseSystem): string {
  const { roster, name } = system.options;
  const termOf = (c: RosterClass) => roster.terms.find((t) => t.sourcedId === c.terms[0]?.sourcedId);
  const rows = roster.classes
    .map((c) => ({ c, term: termOf(c), course: system.courses.get(c.sourcedId)! }))
    .sort((a, b) => (b.term?.startDate ?? '').localeCompare(a.term?.startDate ?? ''))
    .map(({ c, term, course: { held, rubrics } }) => {
      const counts = [held.quizzes, held.banks, held.items, rubrics].map((list) => String(list.length));
      const link = tag('a', { href: `/courses/${c.sourcedId}` }, escape(c.title));
      return row('td', link, escape(c.classCode), escape(term?.title ?? ''), ...counts);
    });
  const habits = (Object.keys(HABITS) as Habit[]).map((h) => {
    const checked = system.habits[h] ? 'checked' : null;
    const box = tag('input', { type: 'checkbox', name: h, checked });
    return tag('label', {}, box, ` ${escape(HABITS[h])}`) + tag('br');
  });
  return page(
    name,
    heading(1, name),
    tag('p', {}, 'A simulated course system.'),
    heading(2, 'Courses'),
    tag('table', {}, row('th', ...COLUMNS), ...rows),
    heading(2, 'Habits'),
    tag('form', { method: 'post', action: '/habits' }, ...habits, '<button>Set these habits</button>'),
  );
}

const bold = (title: string): string => tag('b', {}, escape(title) || '(no name)');

/** A rubric with its criteria, what it is attached to, and whether it is locked. */
function rubricLine(course: Course, { id, title, points }: OutlinedThing): string {
  const rubric = course.rubrics.find((r) => r.id === id)!;
  const locked = course.things.find((t) => t.id === id)?.locked ? ', locked' : '';
  const graded = [...course.held.items, ...course.assignments];
  const on = rubric.attachedTo.map((a) => graded.find((x) => x.id === a)?.title || a).join(', ') || 'nothing';
  const rows = rubric.criteria.map((c) => {
    const levels = c.levels.map((l) =>
      tag('td', {}, `${escape(l.title)} ${l.points?.high ?? ''}`, tag('br'), escape(l.description)),
    );
    return tag('tr', {}, tag('th', {}, escape(c.title)), ...levels);
  });
  const said = `rubric: ${bold(title)}, ${points} points, attached to ${escape(on)}${locked}`;
  return tag('li', {}, said, tag('table', {}, ...rows));
}

function thingLine(course: Course, t: OutlinedThing): string {
  if (t.kind === 'rubric') return rubricLine(course, t);
  const facts = [
    `${t.kind}: ${bold(t.title)}`,
    `${t.items} questions`,
    `${t.points} points`,
    t.hidden ? 'hidden' : '',
    t.opens ? `opens ${t.opens}` : '',
    t.closes ? `closes ${t.closes}` : '',
    t.kind === 'quiz' && !t.instructions ? 'no instructions' : '',
    t.openAttempts ? `${t.openAttempts} attempts open` : '',
  ];
  return tag('li', {}, facts.filter((f) => f !== '').join(', '));
}

export function coursePage(system: CourseSystem, course: Course): string {
  const { sections, things } = outlineOf(course);
  const title = system.options.roster.classes.find((c) => c.sourcedId === course.id)?.title ?? course.id;
  const block = (name: string, id: string | null): string => {
    const inside = things.filter((t) => t.section === id).map((t) => thingLine(course, t));
    if (inside.length > 0) return heading(2, name) + tag('ul', {}, ...inside);
    return id === null ? '' : heading(2, name);
  };
  const work = course.assignments.map((a) =>
    tag('li', {}, `assignment: ${bold(a.title)}, ${a.points} points`),
  );
  return page(
    title,
    tag('p', {}, tag('a', { href: '/' }, escape(system.options.name))),
    heading(1, title),
    ...sections.map((s) => block(s.name, s.id)),
    block('Outside of sections', null),
    work.length === 0 ? '' : heading(2, 'Assignments') + tag('ul', {}, ...work),
  );
}
