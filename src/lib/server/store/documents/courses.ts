import { z } from 'zod';
import type { CourseListing } from '../../../shared/courses.ts';
import { AboutShape } from '../../../shared/courseShapes.ts';
import { codec } from '../codec.ts';
import { OutlineShape } from './nodes.ts';

const object = (old: unknown): Record<string, unknown> => old as Record<string, unknown>;

/** 2: how it takes rubrics is always said. */
export const aboutCodec = codec('description of a system', AboutShape, [
  (old) => ({ rubrics: null, ...object(old) }),
]);

const Listing: z.ZodType<CourseListing> = z.object({
  id: z.string(),
  systemId: z.string(),
  system: z.string(),
  title: z.string(),
  code: z.string(),
  section: z.string(),
  term: z.string(),
  termStart: z.string(),
  termEnd: z.string(),
  people: z.array(z.string()),
  quizzes: z.number(),
  banks: z.number(),
  rubrics: z.number(),
  links: z.number(),
  items: z.number(),
  openAttempts: z.number(),
  mayChange: z.boolean(),
  own: z.boolean(),
});
/** 2: rubrics are counted. */
export const listingCodec = codec('listing of a course', Listing, [
  (old) => ({ rubrics: 0, ...object(old) }),
]);

export const outlineCodec = codec('outline of a course', OutlineShape);
