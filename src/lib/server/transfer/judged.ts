import {
  differencesOf,
  sortOf,
  speakDifference,
  type Mend,
  type OpenDifference,
  type Subject,
} from '@alforja/core';
import {
  differencesMeant,
  sortDifferences,
  type DifferenceFacts,
  type DifferencesMeant,
  type DifferencesShown,
  type SortedDifferences,
} from '../../shared/differences.ts';
import type { Arrival, JudgedDifference } from '../../shared/transfers.ts';
import type { Transfer } from '../store/transfers.ts';
import { mendsOf, undoneBy } from './mend.ts';
import { union } from './sending.ts';

/** What differs of what arrived, what can be done about it, and what somebody decided. */

/** A difference as it is judged; its words come when it is shown. */
type Judged = DifferenceFacts & { readonly difference: OpenDifference; readonly by: Mend | undefined };

async function judge(transfer: Transfer, arrival: Arrival): Promise<Judged[]> {
  const mends = await mendsOf(transfer, arrival);
  const decided = new Map(transfer.decisions.map((d) => [d.key, d]));
  return differencesOf(arrival).map((difference) => {
    const { id, subject } = difference;
    const by = mends.get(id);
    return {
      difference,
      by,
      id,
      about: subject.about,
      itemState: subject.about === 'item' ? subject.state : null,
      sort: sortOf(subject),
      items: sourceItems(subject),
      mend: by?.do ?? null,
      decision: decided.get(id) ?? null,
    };
  });
}

const inWords =
  (transfer: Transfer, arrival: Arrival) =>
  ({ difference, by, ...facts }: Judged): JudgedDifference => ({
    ...facts,
    ...speakDifference(difference, arrival),
    undoes: undoneBy(by, transfer, arrival),
  });

/** Every difference in words. */
export async function judgedDifferences(transfer: Transfer): Promise<JudgedDifference[]> {
  const { arrival } = transfer;
  return arrival ? (await judge(transfer, arrival)).map(inWords(transfer, arrival)) : [];
}

/** Differences that a page brings in words: of each sort, with a line each, and accepted. */
const FIRST_OF_SORT = 25;
const FIRST_SINGLE = 100;
/** Many may have been accepted at once; the receipt lists them all. */
const FIRST_ACCEPTED = 50;

const NONE: DifferencesShown = {
  open: 0,
  accepted: 0,
  misplaced: false,
  single: [],
  singles: 0,
  groups: [],
  firstAccepted: [],
  settable: 0,
  sendable: 0,
  undoes: [],
};

const sorted = async (transfer: Transfer, arrival: Arrival): Promise<SortedDifferences<Judged>> =>
  sortDifferences(await judge(transfer, arrival));

/** The differences as the page of the arrival brings them. */
export async function differencesShown(transfer: Transfer): Promise<DifferencesShown> {
  const { arrival } = transfer;
  if (!arrival) return NONE;
  const { open, single, groups, accepted, settable, sendable } = await sorted(transfer, arrival);
  const say = inWords(transfer, arrival);
  const mended = transfer.record.some((e) => e.act === 'mended');
  return {
    open: open.length,
    accepted: accepted.length,
    misplaced: [...open, ...accepted].some((d) => d.about === 'landing'),
    single: single.slice(0, FIRST_SINGLE).map(say),
    singles: single.length,
    groups: groups.map(({ id, sort, differences }) => ({
      id,
      sort,
      count: differences.length,
      first: differences.slice(0, FIRST_OF_SORT).map(say),
    })),
    firstAccepted: accepted.slice(0, FIRST_ACCEPTED).map(say),
    settable: settable.length,
    sendable: sendable.length,
    undoes: mended
      ? union(
          [],
          open.flatMap((d) => undoneBy(d.by, transfer, arrival)),
        )
      : [],
  };
}

/** Ids of the differences that are meant. */
export async function idsMeant(transfer: Transfer, meant: DifferencesMeant): Promise<string[]> {
  if ('ids' in meant) return [...meant.ids];
  const { arrival } = transfer;
  if (!arrival) return [];
  return differencesMeant(await sorted(transfer, arrival), meant).map((d) => d.id);
}

/** The source items that a difference is about. */
function sourceItems(subject: Subject): readonly string[] {
  if (subject.about === 'family') return subject.family.items;
  if (subject.about !== 'item') return [];
  if (subject.state === 'altered') return [subject.pair.source];
  return subject.state === 'missing' ? [subject.item] : [];
}

/** Ids of source items whose difference somebody took as it is. */
export function acceptedItems(transfer: Transfer, arrival: Arrival): ReadonlySet<string> {
  const decided = new Set(transfer.decisions.map((d) => d.key));
  if (decided.size === 0) return new Set();
  return new Set(differencesOf(arrival).flatMap((d) => (decided.has(d.id) ? sourceItems(d.subject) : [])));
}
