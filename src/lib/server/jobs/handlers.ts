import type { Handler } from './context.ts';
import { batch } from './batch.ts';
import { carry } from './carry.ts';
import { fetchCourse, sync } from './courses.ts';
import { compare, forecast, read, send } from './packageJobs.ts';
import { plan } from './plan.ts';
import { undo } from './undo.ts';

const HANDLERS = {
  read,
  forecast,
  send,
  compare,
  sync,
  fetch: fetchCourse,
  plan,
  carry,
  undo,
  batch,
} as const;
export type JobKind = keyof typeof HANDLERS;
export const handlerFor = (kind: JobKind): Handler => HANDLERS[kind];

/** Jobs that mostly wait for other systems; they do not stand in the way of those that compute. */
export const WAITING_KINDS: ReadonlySet<JobKind> = new Set(['sync', 'fetch', 'carry', 'undo', 'batch']);
