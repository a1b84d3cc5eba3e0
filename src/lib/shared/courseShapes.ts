import { TARGETS, THING_KINDS, type CourseThing } from '@alforja/core';
import { z } from 'zod';
import type { SystemAbout } from './courses.ts';

/** Shapes of what course systems answer and what is kept of it. */

/** What a system says of itself. */
export const AboutShape: z.ZodType<SystemAbout> = z.object({
  name: z.string(),
  takes: z.array(z.enum(TARGETS)),
  gives: z.string(),
  rubrics: z.enum(['csv', 'case1.0']).nullable().default(null),
  user: z.object({ id: z.string(), name: z.string(), email: z.string(), role: z.string() }),
});
/** A thing of a course, as its outline lists it. */
export const ThingShape: z.ZodType<CourseThing> = z.object({
  id: z.string(),
  kind: z.enum(THING_KINDS),
  title: z.string(),
  section: z.string().nullable(),
  hidden: z.boolean(),
  opens: z.string().nullable(),
  closes: z.string().nullable(),
  instructions: z.string().nullable(),
  attempts: z.union([z.number(), z.literal('unlimited')]).nullable(),
  timeLimitMinutes: z.number().nullable(),
  passMark: z.number().nullable(),
  review: z.string().nullable(),
  items: z.number(),
  points: z.number(),
  openAttempts: z.number(),
});
