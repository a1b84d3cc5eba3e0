import type { Finding } from '@alforja/core';
import type { Transaction } from '../store/database.ts';
import type { OrderKind, Orders } from '../work/orders.ts';
import type { Progress } from '../work/progress.ts';

/** What a running job has at hand. */
export interface JobContext {
  /** The job's id: the same when it is taken up again. */
  readonly id: string;
  readonly signal: AbortSignal;
  readonly tell: Progress;
  /** Runs an order in a worker thread. @throws JobFailure where it could not be done */
  readonly work: <K extends OrderKind>(kind: K, asked: Orders[K]['asked']) => Promise<Orders[K]['result']>;
}

/** What is written down in the same change as that a job is done: once, or not at all. */
export type Ending = (tx: Transaction) => Promise<unknown>;

/**
 * One kind of job; safe to run twice, since its process may end at any moment. What it writes is refused once it
 * was stopped, or is run by another process.
 */
export interface Handler {
  readonly run: (subject: string, context: JobContext) => Promise<Ending | void>;
  /** It could not be done; part of the change that says so. */
  readonly failed?: (tx: Transaction, subject: string, failure: Finding) => Promise<unknown>;
  /** Somebody stopped it; part of the change that says so. */
  readonly stopped?: (tx: Transaction, subject: string) => Promise<unknown>;
  /** It mostly waits for other systems, and does not stand in the way of what computes. */
  readonly waits?: boolean;
}

/** A job that could not be done, and why. */
export class JobFailure extends Error {
  constructor(readonly finding: Finding) {
    super(finding.code);
    this.name = 'JobFailure';
  }
}
