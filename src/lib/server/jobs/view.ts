import { speak, type Finding } from '@alforja/core';
import type { JobView } from '../../shared/types.ts';
import type { jobs } from '../db/schema.ts';

export type JobRow = typeof jobs.$inferSelect;

export function viewOf(row: JobRow): JobView {
  const failure = row.failure ? speak(JSON.parse(row.failure) as Finding) : null;
  const { id, kind, subject, state, step, done, total } = row;
  return { id, kind, subject, state, step, done, total, failure };
}
