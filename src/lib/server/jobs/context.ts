import type { Finding } from '@alforja/core';
import type { Order, Outcome } from './worker.ts';

export type Succeeded = Extract<Outcome, { ok: true }>;
export type Tell = (step: string, done: number, total: number) => void;

/** What a running job has at hand. */
export interface JobContext {
  readonly signal: AbortSignal;
  readonly tell: Tell;
  /** Runs an order in a worker thread. @throws JobFailure where it could not be done */
  readonly work: <K extends Succeeded['kind']>(
    order: Extract<Order, { kind: K }>,
  ) => Promise<Extract<Succeeded, { kind: K }>>;
}

/** One kind of job; safe to run twice. */
export interface Handler {
  readonly run: (subject: string, context: JobContext) => Promise<void>;
  readonly failed: (subject: string, failure: Finding) => Promise<void>;
  /** Somebody stopped it. */
  readonly stopped?: (subject: string) => Promise<void>;
}

/** A job that could not be done, and why. */
export class JobFailure extends Error {
  constructor(readonly finding: Finding) {
    super(finding.code);
  }
}
