import {
  courseMends,
  differencesOf,
  fileMends,
  mergedChanges,
  own,
  speakDifference,
  type DifferenceId,
  type Mend,
  type Tick,
} from '@alforja/core';
import { partsOfCourse } from '../../shared/courses.ts';
import type { Arrival, RecordEntry } from '../../shared/transfers.ts';
import type { Connector } from '../connectors/types.ts';
import { connectorTo } from '../library/systems.ts';
import { write } from '../store/database.ts';
import { systemById } from '../store/systems.ts';
import { changeTransfer, transferById, type Transfer } from '../store/transfers.ts';
import { beginSending } from './begin.ts';
import { whoDecides } from './decisions.ts';
import { changeSending, union } from './sending.ts';
import { sourceOf } from './source.ts';

/** The mend for each difference that has one. */
export async function mendsOf(transfer: Transfer, arrival: Arrival): Promise<Map<DifferenceId, Mend>> {
  if (transfer.destCourse === null) return fileMends(arrival);
  const source = await sourceOf(transfer);
  if (!arrival.landing || !source || !transfer.plan) return new Map();
  const { landed, attachments } = arrival.landing;
  return courseMends(
    arrival,
    {
      tree: source.tree,
      landings: transfer.plan.landings,
      settings: transfer.options.settings,
      losses: transfer.sent?.findings ?? [],
    },
    { landed, attachments, created: transfer.sending?.created ?? [] },
  );
}

/**
 * What was mended in the things that a mend sends again: they are made anew, so that it is undone.
 * @returns in words, each once
 */
export function undoneBy(
  mend: Mend | undefined,
  { record }: Pick<Transfer, 'record'>,
  arrival: Arrival,
): string[] {
  if (mend?.do !== 'resend') return [];
  const things = new Set(mend.landings.flatMap((l) => own(arrival.landing?.landed ?? {}, l) ?? []));
  return union(
    [],
    record.flatMap((e) => (e.act === 'mended' && e.things.some((t) => things.has(t)) ? e.mended : [])),
  );
}

/**
 * Mends these differences: sets and takes out in the course at once, then sends again what has to be; for a
 * file, writes a package of them alone.
 * @returns what could not be done, in words
 */
export async function mend(transfer: Transfer, arrival: Arrival, ids: readonly string[]): Promise<string[]> {
  const mends = await mendsOf(transfer, arrival);
  const chosen = ids.flatMap((id) => mends.get(id) ?? []);
  if (transfer.destCourse === null) {
    const ticks = chosen.flatMap((m): readonly Tick[] => (m.do === 'write' ? m.ticks : []));
    if (ticks.length > 0) await beginSending(transfer, { only: { ticks } });
    return [];
  }
  const undoes = union(
    [],
    chosen.flatMap((m) => undoneBy(m, transfer, arrival)),
  );
  const said = new Set(ids);
  const mended = differencesOf(arrival)
    .filter((d) => said.has(d.id) && mends.has(d.id))
    .map((d) => speakDifference(d, arrival).what);
  const things = chosen.flatMap((m) => (m.do === 'set' || m.do === 'renew' ? [m.thing] : []));
  const entry: RecordEntry = {
    act: 'mended',
    at: Date.now(),
    by: await whoDecides(transfer),
    mended,
    things,
    undoes,
  };
  return mendInCourse(transfer, arrival, chosen, transfer.destCourse, entry);
}

async function mendInCourse(
  transfer: Transfer,
  arrival: Arrival,
  chosen: readonly Mend[],
  destCourse: string,
  entry: RecordEntry,
): Promise<string[]> {
  const { systemId, classId } = partsOfCourse(destCourse);
  const connector = await connectorTo(systemId);
  const landings = union(
    [],
    chosen.flatMap((m) => (m.do === 'resend' ? m.landings : [])),
  );
  // What is sent again, or made anew, need not be set before.
  const sentAgain = landings.flatMap((l) => own(arrival.landing?.landed ?? {}, l) ?? []);
  const failed: string[] = [];
  const anew = await renewAll(transfer, connector, chosen, failed);
  const settled = new Set([...sentAgain, ...anew]);
  const removed = chosen.flatMap((m) => (m.do === 'remove' ? [m.thing] : []));
  const attempt = (work: Promise<void>): Promise<void> =>
    work.catch((error: Error) => void failed.push(error.message));
  for (const thing of removed) if (!settled.has(thing)) await attempt(connector.remove(classId, thing));
  for (const [thing, change] of mergedChanges(chosen))
    if (!settled.has(thing)) await attempt(connector.change(classId, thing, change));
  if (chosen.length > 0)
    await write((tx) => changeTransfer(tx, transfer.id, ({ record }) => ({ record: [...record, entry] })));
  await beginSending(transfer, landings.length > 0 ? { only: { landings } } : { checkOnly: true });
  return failed;
}

/**
 * Makes rubrics anew, attached again, and takes the copies they stand for out; one that cannot be taken out
 * is said.
 * @returns the copies that gave their place
 */
async function renewAll(
  transfer: Transfer,
  connector: Connector,
  mends: readonly Mend[],
  failed: string[],
): Promise<string[]> {
  const renewals = mends.filter((m) => m.do === 'renew');
  if (renewals.length === 0) return [];
  const { systemId, classId } = partsOfCourse(transfer.destCourse!);
  const form = (await systemById(systemId))?.about.rubrics ?? 'case1.0';
  const done: string[] = [];
  for (const { thing, rubric, attachedTo } of renewals) {
    const sendingId = (await transferById(transfer.id))!.sending!.id;
    try {
      const key = `${sendingId}:renew:${thing}`;
      const id = await connector.newRubric(classId, rubric, form, attachedTo, key);
      await changeSending(transfer.id, sendingId, (s) => ({ ...s, created: union(s.created, [id]) }));
      await replaceInPlan(transfer.id, thing, id);
      await connector.remove(classId, thing);
      await changeSending(transfer.id, sendingId, (s) => ({
        ...s,
        created: s.created.filter((c) => c !== thing),
      }));
      done.push(thing);
    } catch (error) {
      failed.push((error as Error).message);
    }
  }
  return done;
}

/** What a plan says is there already is there under a new id. */
const replaceInPlan = (id: string, from: string, to: string): Promise<unknown> =>
  write((tx) =>
    changeTransfer(tx, id, ({ plan }) => {
      if (!plan) return null;
      const landings = plan.landings.map((l) => (l.there === from ? { ...l, there: to } : l));
      return { plan: { ...plan, landings } };
    }),
  );
