import { randomUUID } from 'node:crypto';
import { and, desc, eq, gte, inArray, isNotNull, isNull, like, lt, lte, or } from 'drizzle-orm';
import { find, TARGETS, type Tally, type Target } from '@alforja/core';
import {
  DEFAULT_OPTIONS,
  type Arrival,
  type Decision,
  type LineState,
  type Overrides,
  type Plan,
  type RecordEntry,
  type Sending,
  type Sent,
  type TakenBack,
  type TransferListing,
  type TransferOptions,
} from '../../shared/transfers.ts';
import { db, type Reading, type Transaction } from './database.ts';
import {
  arrivalCodec,
  decisionsCodec,
  optionsCodec,
  overridesCodec,
  planCodec,
  recordCodec,
  sendingCodec,
  sentCodec,
  tallyCodec,
} from './documents/transfers.ts';
import { packages, transfers } from './schema.ts';
import { throwing } from './thrown.ts';

type Row = typeof transfers.$inferSelect;

/** A transfer as it stands in its row; each document is read when it is first asked for. */
export class Transfer {
  readonly id: string;
  readonly createdAt: number;
  readonly title: string;
  readonly packageId: string;
  readonly target: Target;
  readonly sentAt: number | null;
  readonly comparedAt: number | null;
  readonly arrivedPackageId: string | null;
  readonly sourceCourse: string | null;
  /** Null for a file. */
  readonly destCourse: string | null;
  readonly sourceSnapshot: string | null;
  readonly destSnapshot: string | null;
  readonly backSnapshot: string | null;
  readonly targetChosen: boolean;
  readonly batchId: string | null;
  /** The rows of the comparison; null where it has them in itself. */
  readonly seamId: string | null;
  readonly #row: Row;
  readonly #read = new Map<string, unknown>();

  constructor(row: Row) {
    this.#row = row;
    this.id = row.id;
    this.createdAt = row.createdAt;
    this.title = row.title;
    this.packageId = row.packageId;
    this.target = TARGETS.find((t) => t === row.target) ?? 'qti2.1';
    this.sentAt = row.sentAt;
    this.comparedAt = row.comparedAt;
    this.arrivedPackageId = row.arrivedPackageId;
    this.sourceCourse = row.sourceCourse;
    this.destCourse = row.destCourse;
    this.sourceSnapshot = row.sourceSnapshot;
    this.destSnapshot = row.destSnapshot;
    this.backSnapshot = row.backSnapshot;
    this.targetChosen = row.targetChosen;
    this.batchId = row.batchId;
    this.seamId = row.seamId;
  }

  get options(): TransferOptions {
    return this.#once('options', () => optionsCodec.readOptional(this.#row.options) ?? DEFAULT_OPTIONS);
  }
  get plan(): Plan | null {
    return this.#once('plan', () => planCodec.readOptional(this.#row.plan));
  }
  get overrides(): Overrides {
    return this.#once('overrides', () => overridesCodec.read(this.#row.overrides));
  }
  get sending(): Sending | null {
    return this.#once('sending', () => sendingCodec.readOptional(this.#row.sending));
  }
  get sent(): Sent | null {
    return this.#once('sent', () => sentCodec.readOptional(this.#row.sent));
  }
  get arrival(): Arrival | null {
    return this.#once('arrival', () => arrivalCodec.readOptional(this.#row.arrival));
  }
  get tally(): Tally | null {
    return this.#once('tally', () => tallyCodec.readOptional(this.#row.tally));
  }
  get record(): readonly RecordEntry[] {
    return this.#once('record', () => recordCodec.read(this.#row.record));
  }
  get decisions(): readonly Decision[] {
    return this.#once('decisions', () => decisionsCodec.read(this.#row.decisions));
  }

  #once<T>(name: string, read: () => T): T {
    if (!this.#read.has(name)) this.#read.set(name, read());
    return this.#read.get(name) as T;
  }
}

/** What a change may set: all of a transfer but what it is known by. */
export type TransferChange = Partial<Omit<Transfer, 'id' | 'createdAt'>>;

/** How the documents of a change go into their columns. */
function columns(change: TransferChange): Partial<Row> {
  const { options, plan, overrides, sending, sent, arrival, tally, decisions, record, ...fields } = change;
  const optional = <T>(value: T | null, write: (value: T) => string): string | null =>
    value === null ? null : write(value);
  return {
    ...fields,
    ...(options === undefined ? {} : { options: optionsCodec.write(options) }),
    ...(plan === undefined ? {} : { plan: optional(plan, planCodec.write) }),
    ...(overrides === undefined ? {} : { overrides: overridesCodec.write(overrides) }),
    ...(sending === undefined ? {} : { sending: optional(sending, sendingCodec.write) }),
    ...(sent === undefined ? {} : { sent: optional(sent, sentCodec.write) }),
    ...(arrival === undefined ? {} : { arrival: optional(arrival, arrivalCodec.write) }),
    ...(tally === undefined ? {} : { tally: optional(tally, tallyCodec.write) }),
    ...(record === undefined ? {} : { record: recordCodec.write(record) }),
    ...(decisions === undefined ? {} : { decisions: decisionsCodec.write(decisions) }),
  };
}

export async function transferById(id: string, on: Reading = db): Promise<Transfer | null> {
  const [row] = await on.select().from(transfers).where(eq(transfers.id, id));
  return row ? new Transfer(row) : null;
}

export async function insertTransfer(
  tx: Transaction,
  given: TransferChange & Pick<Transfer, 'title' | 'packageId' | 'target'>,
): Promise<string> {
  const id = randomUUID();
  const { title, packageId, target, ...rest } = given;
  await tx
    .insert(transfers)
    .values({ ...columns(rest), id, title, packageId, target, createdAt: Date.now() });
  return id;
}

/**
 * Changes a transfer by what it is now, never by what it was when somebody last looked.
 * @param change told the transfer as it stands; answers what is otherwise, or null to leave it
 * @returns the transfer after the change; null where there is none
 */
export async function changeTransfer(
  tx: Transaction,
  id: string,
  change: (before: Transfer) => TransferChange | null,
): Promise<Transfer | null> {
  const before = await transferById(id, tx);
  const wanted = before && change(before);
  if (!before || !wanted) return before;
  const [after] = await tx.update(transfers).set(columns(wanted)).where(eq(transfers.id, id)).returning();
  return after ? new Transfer(after) : null;
}

/** How one transfer of a batch stands: what its arrival came to, and whether it was taken back. */
export interface BatchStanding {
  readonly tally: Tally | null;
  readonly takenBack: TakenBack | null;
}

/** How a batch's transfers stand, by transfer. */
export async function standingsOfBatch(
  batchId: string,
  on: Reading = db,
): Promise<Map<string, BatchStanding>> {
  const rows = await on
    .select({ id: transfers.id, tally: transfers.tally, sending: transfers.sending })
    .from(transfers)
    .where(eq(transfers.batchId, batchId));
  return new Map(
    rows.map(({ id, tally, sending }) => [
      id,
      {
        tally: tallyCodec.readOptional(tally),
        takenBack: sendingCodec.readOptional(sending)?.undone ?? null,
      },
    ]),
  );
}

/** Transfers whose sending has not ended, by what its record says. */
export async function sendingsUnderWay(on: Reading): Promise<Transfer[]> {
  // A record that has ended may hold the same words for a step that never began; most do not.
  const rows = await on.select().from(transfers).where(like(transfers.sending, '%"endedAt":null%'));
  return rows.map((row) => new Transfer(row)).filter((t) => t.sending?.endedAt === null);
}

/** Transfers that a package takes part in, so that its page can lead there. */
export const transfersOf = (packageId: string): Promise<{ id: string; title: string }[]> =>
  db
    .select({ id: transfers.id, title: transfers.title })
    .from(transfers)
    .where(and(eq(transfers.packageId, packageId), isNull(transfers.thrownAt)))
    .orderBy(desc(transfers.createdAt))
    .limit(10);

/** The newest transfer from one place to another that was never sent; null where there is none. */
export async function unsentDraft(
  tx: Transaction,
  { packageId, sourceCourse, destCourse }: Pick<Transfer, 'packageId' | 'sourceCourse' | 'destCourse'>,
): Promise<string | null> {
  const [row] = await tx
    .select({ id: transfers.id })
    .from(transfers)
    .where(
      and(
        // A course that has changed since is another source: its package is another one.
        eq(transfers.packageId, packageId),
        sourceCourse === null ? isNull(transfers.sourceCourse) : eq(transfers.sourceCourse, sourceCourse),
        destCourse === null ? isNull(transfers.destCourse) : eq(transfers.destCourse, destCourse),
        isNull(transfers.sentAt),
        isNull(transfers.sending),
        isNull(transfers.batchId),
        isNull(transfers.thrownAt),
      ),
    )
    .orderBy(desc(transfers.createdAt))
    .limit(1);
  return row?.id ?? null;
}

/** Without the long columns. */
const LISTED = {
  id: transfers.id,
  title: transfers.title,
  createdAt: transfers.createdAt,
  sentAt: transfers.sentAt,
  comparedAt: transfers.comparedAt,
  tally: transfers.tally,
  sending: transfers.sending,
};

interface TransferFilter {
  /** Words of the title, the source or either course, spelling forgiven. */
  readonly query?: string;
  /** ISO dates, both included. */
  readonly from?: string;
  readonly to?: string;
}

/** So many transfers are looked through for words. */
const MOST_SEARCHED = 5000;

/** Transfers, newest first; the parts of a batch stand with the batch, unless they are searched for. */
export async function listTransfers(limit = 200, filter: TransferFilter = {}): Promise<TransferListing[]> {
  const day = (date: string, end: boolean): number =>
    Date.parse(`${date}T${end ? '23:59:59.999' : '00:00:00'}Z`);
  const rows = await db
    .select({ transfer: LISTED, packageName: packages.name })
    .from(transfers)
    .innerJoin(packages, eq(packages.id, transfers.packageId))
    .where(
      and(
        isNull(transfers.thrownAt),
        filter.query ? undefined : isNull(transfers.batchId),
        filter.from ? gte(transfers.createdAt, day(filter.from, false)) : undefined,
        filter.to ? lte(transfers.createdAt, day(filter.to, true)) : undefined,
      ),
    )
    .orderBy(desc(transfers.createdAt))
    .limit(filter.query ? MOST_SEARCHED : limit);
  const said = (r: (typeof rows)[number]): string => `${r.transfer.title} ${r.packageName} ${r.transfer.id}`;
  const found = filter.query ? find(rows, filter.query, said).map((h) => h.entry) : rows;
  return found.slice(0, limit).map(({ transfer: { tally: text, sending: kept, ...t }, packageName }) => {
    const tally = tallyCodec.readOptional(text);
    const sending = sendingCodec.readOptional(kept);
    return {
      ...t,
      packageName,
      state: lineState(t, sending, tally),
      trouble: sending?.failure?.detail ?? null,
      counts: tally?.counts ?? null,
      verdict: tally?.verdict ?? null,
      open: tally?.open ?? 0,
      accepted: tally?.accepted ?? 0,
      takenBack: sending?.undone ?? null,
    };
  });
}

function lineState(
  { sentAt, comparedAt }: Pick<TransferListing, 'sentAt' | 'comparedAt'>,
  sending: Sending | null,
  tally: Tally | null,
): LineState {
  if (sending?.undone) return 'taken-back';
  if (sending?.failure) return 'stopped';
  if (sending && sending.endedAt === null) return 'sending';
  if (sentAt === null) return 'draft';
  if (comparedAt === null) return 'sent';
  return (tally?.open ?? 0) > 0 ? 'open' : 'done';
}

/** How the newest transfer into each course stands; courses that nothing goes into are not among them. */
export async function statesOfCourses(): Promise<Map<string, LineState>> {
  const rows = await db
    .select({ ...LISTED, destCourse: transfers.destCourse })
    .from(transfers)
    .where(and(isNull(transfers.thrownAt), isNotNull(transfers.destCourse)))
    .orderBy(transfers.createdAt);
  return new Map(
    rows.map(({ destCourse, tally, sending, ...t }) => [
      destCourse!,
      lineState(t, sendingCodec.readOptional(sending), tallyCodec.readOptional(tally)),
    ]),
  );
}

/** The sha256 of every file that was written for a transfer, whichever of its documents names it. */
export async function writtenSums(on: Reading = db): Promise<string[]> {
  const { sent, sending, record } = transfers;
  const rows = await on.select({ sent, sending, record }).from(transfers);
  return rows
    .flatMap((row) => Object.values(row))
    .flatMap((document) => document?.match(/(?<=")[0-9a-f]{64}(?=")/gu) ?? []);
}

/** Throws a transfer away, or brings it back. @param at ms; null brings it back. @returns whether there is one */
export const setTransferThrown = throwing(transfers);

/** Removes transfers that were thrown away before a moment, and those of batches that are removed. */
export const purgeTransfers = (
  tx: Transaction,
  before: number,
  batches: readonly string[],
): Promise<unknown> =>
  tx.delete(transfers).where(or(lt(transfers.thrownAt, before), inArray(transfers.batchId, [...batches])));
