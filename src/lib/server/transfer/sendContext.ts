import { finding } from '@alforja/core';
import { partsOfCourse } from '../../shared/courses.ts';
import type { Sending, SendingFailure, SentPart } from '../../shared/transfers.ts';
import type { Connector } from '../connectors/types.ts';
import { connectorTo } from '../library/systems.ts';
import { JobFailure, type JobContext } from '../runner/handler.ts';
import { transferById, type Transfer } from '../store/transfers.ts';
import { partsOf, type TransferParts } from './plan.ts';
import { changeSending, Superseded, union } from './sending.ts';

/** Why a sending cannot go on. */
class SendingError extends JobFailure {
  constructor(readonly failure: SendingFailure) {
    super(finding('sending-failed', 'error', {}, { ...failure }));
  }
}

export const sendingError = (detail: string, reason: SendingFailure['reason'] = 'other'): SendingError =>
  new SendingError({ reason, detail });

/** What the steps of one sending have at hand: its record, the transfer as it stands, the destination. */
export class SendContext {
  #parts: TransferParts | null = null;
  #connector: Connector | null = null;

  private constructor(
    readonly id: string,
    readonly job: JobContext,
    private current: Sending,
    readonly destCourse: string | null,
  ) {}

  /** @throws where the transfer has nothing to send */
  static async open(id: string, job: JobContext): Promise<SendContext> {
    const transfer = await transferById(id);
    if (!transfer?.sending) throw new Error('This transfer has not been told to send anything.');
    return new SendContext(id, job, transfer.sending, transfer.destCourse);
  }

  get sending(): Sending {
    return this.current;
  }

  /** Changes the record; once the sending was stopped or another has begun, nothing is written any more. */
  async save(change: (before: Sending) => Sending): Promise<void> {
    if (this.job.signal.aborted) throw new Superseded();
    this.current = await changeSending(this.id, this.current.id, change);
  }

  /** Notes something that happened on the way and did no harm. */
  note(...said: readonly string[]): Promise<void> {
    return this.save((s) => ({ ...s, notes: union(s.notes, said) }));
  }

  async transfer(): Promise<Transfer> {
    return (await transferById(this.id))!;
  }

  /** Both sides as the transfer stands. */
  async parts(): Promise<TransferParts> {
    this.#parts ??= await partsOf(await this.transfer());
    if (!this.#parts) throw sendingError('Source or destination are not at hand any more.');
    return this.#parts;
  }

  /** The transfer was changed: its parts are looked up anew. */
  forget(): void {
    this.#parts = null;
  }

  /** The id of the destination's class within its system. */
  get classId(): string {
    return partsOfCourse(this.destCourse!).classId;
  }

  async connector(): Promise<Connector> {
    return (this.#connector ??= await connectorTo(partsOfCourse(this.destCourse!).systemId, {
      onRetry: (what) => void this.#retried.add(what),
      signal: this.job.signal,
    }));
  }

  readonly #retried = new Set<string>();

  /** What had to be asked again, in words. */
  get retries(): string[] {
    return [...this.#retried].map(
      (what) => `The destination gave no answer to ${what}; it was asked again, and nothing was doubled.`,
    );
  }

  /** The files of this sending: those of the whole, or of only what it is about. */
  async files(): Promise<readonly SentPart[]> {
    const { sent } = await this.transfer();
    const mine = sent?.again.find((a) => a.at === this.sending.startedAt);
    return mine?.parts ?? sent?.parts ?? [];
  }
}
