import type { Finding } from '@alforja/core';
import type { OrderKind, Orders } from '../work/orders.ts';
import type { Progress } from '../work/progress.ts';

/** What a running job has at hand. */
export interface JobContext {
  readonly signal: AbortSignal;
  readonly tell: Progress;
  /** Runs an order in a worker thread. @throws JobFailure where it could not be done */
  readonly work: <K extends OrderKind>(kind: K, asked: Orders[K]['asked']) => Promise<Orders[K]['result']>;
}

/** One kind of job; safe to run twice. */
export interface Handler {
  readonly run: (subject: string, context: JobContext) => Promise<void>;
  readonly failed?: (subject: string, failure: Finding) => Promise<void>;
  /** Somebody stopped it. */
  readonly stopped?: (subject: string) => Promise<void>;
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
