import type { CourseSpec } from './courseSpecs.ts';
import type { Enrollment, Roster, RosterClass, Term, User } from './types.ts';

/** Made-up people and terms of a small maritime college, and the roster of a system with these courses. */

const CHANGED = '2026-08-20T09:00:00.000Z';
const base = (sourcedId: string) => ({ sourcedId, status: 'active' as const, dateLastModified: CHANGED });
const ref = (type: string, sourcedId: string) => ({ href: `/${type}s/${sourcedId}`, sourcedId, type });

const TERMS: readonly Term[] = [
  {
    ...base('t-autumn-25'),
    title: 'Autumn 2025',
    type: 'term',
    startDate: '2025-09-08',
    endDate: '2025-12-19',
    schoolYear: '2026',
  },
  {
    ...base('t-spring-26'),
    title: 'Spring 2026',
    type: 'term',
    startDate: '2026-02-02',
    endDate: '2026-06-12',
    schoolYear: '2026',
  },
  {
    ...base('t-autumn-26'),
    title: 'Autumn 2026',
    type: 'term',
    startDate: '2026-09-07',
    endDate: '2026-12-18',
    schoolYear: '2027',
  },
];

const person = (
  id: string,
  givenName: string,
  familyName: string,
  role: 'administrator' | 'teacher' | 'student',
): User => ({
  ...base(id),
  givenName,
  familyName,
  email: `${id}@saltmarsh.example`,
  enabledUser: 'true',
  roles: [{ roleType: 'primary', role }],
});
const USERS: readonly User[] = [
  person('nerea', 'Nerea', 'Sal', 'administrator'),
  person('ilan', 'Ilan', 'Brook', 'teacher'),
  person('odile', 'Odile', 'Fenn', 'teacher'),
  person('tomo', 'Tomo', 'Hašek-Lind', 'teacher'),
];

export function rosterOf(specs: readonly CourseSpec[]): Roster {
  const codes = [...new Map(specs.map((s) => [s.code, s])).values()];
  return {
    terms: TERMS,
    users: USERS,
    courses: codes.map((s) => ({
      ...base(`c-${s.code.replace(/\W/gu, '')}`),
      title: s.title,
      courseCode: s.code,
    })),
    classes: specs.map((s): RosterClass => ({
      ...base(s.id),
      title: s.title,
      classCode: s.number,
      classType: 'scheduled',
      course: ref('course', `c-${s.code.replace(/\W/gu, '')}`),
      terms: [ref('academicSession', s.term)],
    })),
    enrollments: specs.map((s): Enrollment => ({
      ...base(`e-${s.id}`),
      role: 'teacher',
      user: ref('user', s.teacher),
      class: ref('class', s.id),
    })),
  };
}
