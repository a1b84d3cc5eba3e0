import {
  containerName,
  differencesOf,
  inWords,
  outlineName,
  rubricPoints,
  sayDifference,
  sayEdit,
  speak,
  speakDifference,
  UNNAMED,
  type Edit,
  cutShort,
} from '@alforja/core';
import { courseName } from '../../shared/courses.ts';
import { stepWords } from '../../shared/stages.ts';
import type { Arrival, Sent } from '../../shared/transfers.ts';
import type {
  Receipt,
  ReceiptChange,
  ReceiptDifference,
  ReceiptRubric,
  ReceiptWay,
} from '../../shared/receipt.ts';
import { namesOf } from '../library/putRight.ts';
import { courseById } from '../store/courses.ts';
import { packageHead } from '../store/packages.ts';
import { transferById, type Transfer } from '../store/transfers.ts';
import { actsOf, standingOf, stepsSaid } from './record.ts';
import { settingsSheet } from './settingsSheet.ts';

/** The receipt of a transfer; null where there is none, or nothing to put on it yet. */
export async function receiptById(id: string): Promise<Receipt | null> {
  const transfer = await transferById(id);
  return transfer && receiptOf(transfer);
}

/** Everything a receipt states; null until something has been sent or has arrived. */
export async function receiptOf(transfer: Transfer): Promise<Receipt | null> {
  const { sent, arrival } = transfer;
  if (!sent && !arrival) return null;
  const source = (await packageHead(transfer.packageId))!;
  const arrived = transfer.arrivedPackageId ? await packageHead(transfer.arrivedPackageId) : null;
  const differences = differencesIn(transfer);
  return {
    transfer: {
      id: transfer.id,
      title: transfer.title,
      started: iso(transfer.createdAt),
      format: transfer.target,
    },
    source: {
      name: source.name,
      bytes: source.bytes,
      sha256: source.sha256,
      brought: iso(source.broughtAt),
    },
    sent: sent && sentIn(sent, transfer.sentAt),
    arrived: arrived && {
      name: arrived.name,
      bytes: arrived.bytes,
      sha256: arrived.sha256,
      brought: iso(arrived.broughtAt),
      compared: iso(transfer.comparedAt),
    },
    ...comparedIn(arrival),
    onPurpose: arrival ? changesArrived(arrival) : await changesSent(transfer),
    ...standingOf(transfer),
    way: await wayOf(transfer),
    differences,
    open: differences.filter((d) => d.accepted === null).length,
    accepted: differences.filter((d) => d.accepted !== null).length,
    sheet: await settingsSheet(transfer),
  };
}

function sentIn({ parts, again, items, points, findings }: Sent, at: number | null): Receipt['sent'] {
  const [first = { name: '', bytes: 0, sha256: '' }, ...more] = parts;
  return {
    ...first,
    more: [...more, ...again.flatMap((a) => a.parts)],
    at: iso(at),
    items,
    points,
    losses: findings.map(speak),
  };
}

type Compared = Pick<
  Receipt,
  | 'counts'
  | 'totals'
  | 'altered'
  | 'missing'
  | 'extra'
  | 'containers'
  | 'rubrics'
  | 'missingFiles'
  | 'alteredFiles'
>;

function comparedIn(arrival: Arrival | null): Compared {
  if (!arrival)
    return {
      counts: null,
      totals: null,
      altered: [],
      missing: [],
      extra: [],
      containers: [],
      rubrics: [],
      missingFiles: [],
      alteredFiles: [],
    };
  const names = new Map(arrival.left.map((r) => [r.id, r.name]));
  const { counts, pairs, missing, extra, containers, missingFiles, alteredFiles } = arrival.comparison;
  return {
    counts,
    totals: arrival.totals,
    altered: pairs
      .filter((p) => p.state === 'altered')
      .map((p) => ({ ...inWords(p), name: names.get(p.source) ?? p.source })),
    missing,
    extra,
    containers: containers
      .filter((c) => c.state !== 'intact')
      .map((c) => ({ ...inWords(c), name: containerName(c, arrival) })),
    rubrics: rubricsIn(arrival),
    missingFiles,
    alteredFiles,
  };
}

const changesArrived = ({ onPurpose }: Arrival): ReceiptChange[] =>
  onPurpose.map(({ name, node, difference }) => {
    const { facet, from, to } = sayDifference(difference);
    return { name, node, what: facet, before: from, after: to };
  });

/** What was put right in what was sent; nobody has looked yet whether it arrived. */
async function changesSent({ sent, packageId }: Transfer): Promise<ReceiptChange[]> {
  const layer = sent?.layer ?? [];
  if (layer.length === 0) return [];
  const name = await namesOf(
    packageId,
    layer.flatMap((e) => e.node ?? []),
  );
  return layer.map((edit) => {
    const node = edit.node ?? ('path' in edit ? edit.path : null) ?? '';
    return { name: name(node), node, what: edit.op, before: saySeen(edit), after: sayEdit(edit, name) };
  });
}

const LONGEST_SEEN = 160;
function saySeen({ was }: Edit): string {
  const said = typeof was === 'string' || typeof was === 'number' ? String(was) : '';
  return cutShort(said, LONGEST_SEEN);
}

/** Each rubric as it was found there, or as it was planned where it is missing. */
const rubricsIn = ({ rubrics, right, landing }: Arrival): ReceiptRubric[] =>
  rubrics.flatMap(({ state, planned, arrived }) => {
    const rubric = arrived ?? planned;
    if (!rubric) return [];
    const held = landing?.outline.rubrics?.find((r) => r.rubric.id === arrived?.id)?.rubric ?? rubric;
    const nameOf = (id: string): string =>
      right.find((r) => r.id === id)?.name ??
      (landing ? outlineName(landing.outline, id) : null) ??
      UNNAMED.item;
    return [
      {
        name: rubric.title || UNNAMED.rubric,
        state,
        criteria: rubric.criteria.length,
        points: rubricPoints(rubric),
        grades: arrived ? held.attachedTo.map(nameOf) : [],
      },
    ];
  });

/** Who sent it, from where, to where, and by which steps. */
async function wayOf({
  sourceCourse,
  destCourse,
  sending,
  sent,
  plan,
  record,
}: Transfer): Promise<ReceiptWay> {
  const lost = new Set((sent?.findings ?? []).filter((f) => f.code === 'loss-link').map((f) => f.where.node));
  const inFile = (node: string): string => (lost.has(node) ? 'has no place in the format' : 'in the file');
  const from = sourceCourse ? await courseById(sourceCourse) : null;
  const to = destCourse ? await courseById(destCourse) : null;
  const words = stepWords(destCourse !== null);
  return {
    from: from ? courseName(from) : sourceCourse && UNLISTED,
    to: to ? courseName(to) : destCourse && UNLISTED,
    by: sending?.by ?? null,
    steps: stepsSaid(sending?.steps ?? [], words),
    record: actsOf(record, words),
    planned: (plan?.landings ?? []).map(({ kind, node, name, action }) => ({
      kind,
      name,
      action: destCourse === null ? inFile(node) : ACTION_WORDS[action],
    })),
    notes: sending?.notes ?? [],
  };
}

const UNLISTED = 'a course that is no longer listed';

const ACTION_WORDS = {
  add: 'new',
  skip: 'was there already',
  replace: 'new; the older one is hidden',
  keep: 'new, beside another',
} as const;

function differencesIn({ arrival, decisions }: Transfer): ReceiptDifference[] {
  if (!arrival) return [];
  const decided = new Map(decisions.map((d) => [d.key, d]));
  return differencesOf(arrival).map((difference) => {
    const decision = decided.get(difference.id);
    return {
      ...speakDifference(difference, arrival),
      accepted: decision ? { reason: decision.reason, by: decision.by, at: iso(decision.at)! } : null,
    };
  });
}

const iso = (at: number | null): string | null => (at === null ? null : new Date(at).toISOString());
