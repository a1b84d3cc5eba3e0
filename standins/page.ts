import { outlineOf } from './course.ts';
import { HABITS, type Habit } from './habits.ts';
import { escapeXml as escape } from './held.ts';
import type { CourseSystem } from './system.ts';
import type { Course } from './types.ts';

/** Bare pages, so that a person can see with their own eyes what a course holds and which habits are on. */

const page = (title: string, body: string): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escape(title)}</title><style>body{font:15px/1.5 monospace;max-width:70em;margin:2em auto;padding:0 1em;color:#111;background:#fff}table{border-collapse:collapse}td,th{border:1px solid #111;padding:2px 8px;text-align:left}a{color:#00c}</style></head><body>${body}</body></html>`;

export function homePage(system: CourseSystem): string {
  const { roster, name } = system.options;
  const rows = roster.classes
    .map((c) => ({ c, term: roster.terms.find((t) => t.sourcedId === c.terms[0]?.sourcedId) }))
    .sort((a, b) => (b.term?.startDate ?? '').localeCompare(a.term?.startDate ?? ''))
    .map(({ c, term }) => {
      const held = system.courses.get(c.sourcedId)!;
      return `<tr><td><a href="/courses/${c.sourcedId}">${escape(c.title)}</a></td><td>${escape(c.classCode)}</td><td>${escape(term?.title ?? '')}</td><td>${held.held.quizzes.length}</td><td>${held.held.banks.length}</td><td>${held.held.items.length}</td><td>${held.rubrics.length}</td></tr>`;
    });
  const habits = (Object.keys(HABITS) as Habit[]).map(
    (h) =>
      `<label><input type="checkbox" name="${h}"${system.habits[h] ? ' checked' : ''}> ${escape(HABITS[h])}</label><br>`,
  );
  return page(
    name,
    `<h1>${escape(name)}</h1><p>A simulated course system.</p><h2>Courses</h2><table><tr><th>course</th><th>section</th><th>term</th><th>quizzes</th><th>banks</th><th>questions</th><th>rubrics</th></tr>${rows.join('')}</table><h2>Habits</h2><form method="post" action="/habits">${habits.join('')}<button>Set these habits</button></form>`,
  );
}

/** A rubric with its criteria, what it is attached to, and whether it is locked. */
function rubricLine(
  course: Course,
  { id, title, points }: { id: string; title: string; points: number },
): string {
  const rubric = course.rubrics.find((r) => r.id === id)!;
  const locked = course.things.find((t) => t.id === id)?.locked ? ', locked' : '';
  const on =
    rubric.attachedTo
      .map((a) => [...course.held.items, ...course.assignments].find((x) => x.id === a)?.title || a)
      .join(', ') || 'nothing';
  const rows = rubric.criteria.map(
    (c) =>
      `<tr><th>${escape(c.title)}</th>${c.levels.map((l) => `<td>${escape(l.title)} ${l.points?.high ?? ''}<br>${escape(l.description)}</td>`).join('')}</tr>`,
  );
  return `<li>rubric: <b>${escape(title) || '(no name)'}</b>, ${points} points, attached to ${escape(on)}${locked}<table>${rows.join('')}</table></li>`;
}

export function coursePage(system: CourseSystem, course: Course): string {
  const { sections, things } = outlineOf(course);
  const title = system.options.roster.classes.find((c) => c.sourcedId === course.id)?.title ?? course.id;
  const line = (t: (typeof things)[number]): string =>
    t.kind === 'rubric'
      ? rubricLine(course, t)
      : `<li>${t.kind}: <b>${escape(t.title) || '(no name)'}</b>, ${t.items} questions, ${t.points} points${t.hidden ? ', hidden' : ''}${t.opens ? `, opens ${t.opens}` : ''}${t.closes ? `, closes ${t.closes}` : ''}${t.kind === 'quiz' && !t.instructions ? ', no instructions' : ''}${t.openAttempts ? `, ${t.openAttempts} attempts open` : ''}</li>`;
  const block = (name: string, id: string | null): string => {
    const inside = things.filter((t) => t.section === id);
    return inside.length > 0 || id !== null
      ? `<h2>${escape(name)}</h2><ul>${inside.map(line).join('')}</ul>`
      : '';
  };
  const work =
    course.assignments.length === 0
      ? ''
      : `<h2>Assignments</h2><ul>${course.assignments.map((a) => `<li>assignment: <b>${escape(a.title)}</b>, ${a.points} points</li>`).join('')}</ul>`;
  return page(
    title,
    `<p><a href="/">${escape(system.options.name)}</a></p><h1>${escape(title)}</h1>${sections.map((s) => block(s.name, s.id)).join('')}${block('Outside of sections', null)}${work}`,
  );
}
