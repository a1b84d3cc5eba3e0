import type { CourseOutline, RubricTarget, Target } from '@alforja/core';

/** Plain values about courses and their systems that cross between server and screens. */

/** How a system takes rubrics beside a package. */
export type RubricForm = Extract<RubricTarget, 'csv' | 'case1.0'>;

/** What a system says of itself and of the holder of the token. */
export interface SystemAbout {
  readonly name: string;
  readonly takes: readonly Target[];
  readonly gives: string;
  /** Null where it takes no rubrics. */
  readonly rubrics: RubricForm | null;
  readonly user: {
    readonly id: string;
    readonly name: string;
    readonly email: string;
    readonly role: string;
  };
}

export interface SystemView {
  readonly id: string;
  readonly name: string;
  readonly address: string;
  readonly about: SystemAbout;
  readonly courses: number;
  readonly syncedAt: number | null;
  readonly trouble: string | null;
}

/** A section of a course in a term, as lists show it. */
export interface CourseListing {
  readonly id: string;
  readonly systemId: string;
  readonly system: string;
  readonly title: string;
  readonly code: string;
  readonly section: string;
  readonly term: string;
  /** ISO dates; empty where the system names no term. */
  readonly termStart: string;
  readonly termEnd: string;
  readonly people: readonly string[];
  readonly quizzes: number;
  readonly banks: number;
  readonly rubrics: number;
  readonly links: number;
  readonly items: number;
  readonly openAttempts: number;
  readonly mayChange: boolean;
  /** Whether the holder of the token teaches it. */
  readonly own: boolean;
}

/** A system, course, term and section in full. */
export const courseName = (c: CourseListing): string =>
  `${c.title} (${c.code}), section ${c.section}, ${c.term || 'no term'}, ${c.system}`;

/** A course's id: its system's, and the class's within it. */
export const courseIdOf = (systemId: string, classId: string): string => `${systemId}:${classId}`;

/** The two halves of a course's id. */
export function partsOfCourse(id: string): { readonly systemId: string; readonly classId: string } {
  const at = id.indexOf(':');
  return { systemId: id.slice(0, at), classId: id.slice(at + 1) };
}

/** A course as it stood at a moment: its outline, and the package it gave. */
export interface Snapshot {
  readonly id: string;
  readonly courseId: string;
  readonly packageId: string;
  readonly takenAt: number;
  readonly outline: CourseOutline;
}
