import {
  rubricPoints,
  rubricSides,
  speak,
  type ContentsView,
  type CourseAssignment,
  type RubricSides,
  type SpokenFinding,
  type State,
  type ThingGroup,
  type Tick,
  type Tree,
} from '@alforja/core';
import type { Stage } from '../../shared/stages.ts';
import type {
  Arrival,
  ArrivedRubric,
  Gradable,
  Sent,
  TransferState,
  ForecastLoss,
} from '../../shared/transfers.ts';
import type { Receipt } from '../../shared/receipt.ts';
import type { ItemRow, JobKind, JobView, PackageListing } from '../../shared/types.ts';
import { appliedEdits, sameEdits } from '../library/layers.ts';
import { broughtPackages, itemRows } from '../library/packages.ts';
import { callingIn } from '../work/calling.ts';
import { latestJobs } from '../store/jobs.ts';
import { packageListing } from '../store/packages.ts';
import { gradableIn } from './gradable.ts';
import { snapshotById } from '../store/snapshots.ts';
import { sameTicks, ticksOf } from '../store/ticks.ts';
import { transferById, type Transfer } from '../store/transfers.ts';
import { forecastOf } from './forecast.ts';
import { receiptOf } from './receipt.ts';
import { contentsFor, sourceGroups, sourceOf, type TransferSource } from './source.ts';
import { stateOf } from './state.ts';

/** What every stage of a transfer's page shows. */
interface TransferPage {
  readonly transfer: Pick<Transfer, 'id' | 'title' | 'target' | 'sentAt' | 'comparedAt'>;
  readonly stage: Stage;
  readonly source: PackageListing;
  readonly sha256: string;
  readonly contents: ContentsView;
  readonly state: TransferState;
  readonly jobs: Partial<Record<JobKind, JobView>>;
  readonly sent: Sent | null;
  /** What the format lost when it was written, in words. */
  readonly losses: readonly SpokenFinding[];
  /** What the format will lose of what is ticked now; null while it is being worked out. */
  readonly forecast: readonly ForecastLoss[] | null;
  /** Whether ticks or format were changed since it was written. */
  readonly stale: boolean;
  readonly counts: Arrival['comparison']['counts'] | null;
  readonly arrived: PackageListing | null;
  /** Only the stage in sight brings its own, possibly long, lists. */
  readonly picking: Picking | null;
  readonly names: Readonly<Record<string, { readonly seq: number; readonly name: string }>>;
  /** What quizzes and banks are called, by their ids. */
  readonly called: Readonly<Record<string, string>>;
  readonly gradable: readonly Gradable[];
  readonly arrival: Arrival | null;
  readonly rubrics: readonly RubricPair[];
  readonly others: readonly PackageListing[];
  readonly receipt: Receipt | null;
}

interface Picking {
  readonly tree: Tree;
  readonly rows: readonly ItemRow[];
  readonly ticks: readonly Tick[];
  readonly groups: readonly ThingGroup[];
  readonly assignments: readonly CourseAssignment[];
}

/** A rubric of the plan beside what became of it. */
interface RubricPair {
  readonly state: State;
  readonly planned: { readonly title: string; readonly points: number | null } | null;
  readonly arrived: { readonly title: string; readonly points: number | null } | null;
  readonly sides: RubricSides | null;
}

/** In these stages somebody asks for the plan; in the others it may wait. */
const PLANNING: ReadonlySet<Stage> = new Set(['forecast', 'landing', 'send']);

/** @returns null where there is no such transfer, or its source is not at hand */
export async function transferPage(id: string, asked: Stage | undefined): Promise<TransferPage | null> {
  const transfer = await transferById(id);
  const source = transfer && (await sourceOf(transfer));
  if (!transfer || !source) return null;
  const { target, sentAt, comparedAt, sent, arrival } = transfer;
  const stage = asked ?? (comparedAt ? 'arrival' : sentAt ? 'send' : 'contents');
  const ticks = await ticksOf(id);
  const state = await stateOf(transfer, { planning: PLANNING.has(stage) });
  const { tree: _, readingId: __, sha256, ...listing } = source.package;
  const rows = ['contents', 'forecast', 'send'].includes(stage) ? await itemRows(source.package.id) : [];
  return {
    transfer: { id, title: transfer.title, target: state.plan?.target ?? target, sentAt, comparedAt },
    stage,
    source: listing,
    sha256,
    contents: await contentsFor(source, ticks),
    state,
    jobs: await latestJobs(id),
    sent,
    losses: (sent?.findings ?? []).map(speak),
    forecast: state.plan && forecastOf(state.plan, callingIn(source.tree)),
    stale:
      sent !== null &&
      (!sameTicks(sent.ticks, ticks) ||
        sent.target !== target ||
        !sameEdits(sent.layer, await appliedEdits(transfer.packageId))),
    counts: arrival?.comparison.counts ?? null,
    arrived: transfer.arrivedPackageId ? await packageListing(transfer.arrivedPackageId) : null,
    picking: stage === 'contents' ? pickingOf(source, rows, ticks) : null,
    names: Object.fromEntries(rows.map((r) => [r.id, { seq: r.seq, name: r.name }])),
    called: rows.length > 0 ? titlesIn(source.tree) : {},
    gradable: stage === 'landing' ? await gradableThere(transfer) : [],
    arrival: stage === 'arrival' ? arrival : null,
    rubrics: stage === 'arrival' ? (arrival?.rubrics ?? []).map(rubricPair) : [],
    others: stage === 'arrival' ? await otherPackages(transfer) : [],
    receipt: stage === 'receipt' ? await receiptOf(transfer) : null,
  };
}

const pickingOf = (source: TransferSource, rows: readonly ItemRow[], ticks: readonly Tick[]): Picking => ({
  tree: source.tree,
  rows,
  ticks,
  groups: sourceGroups(source),
  assignments: source.outline?.assignments ?? [],
});

const titlesIn = ({ quizzes, banks }: Tree): Record<string, string> =>
  Object.fromEntries([...quizzes, ...banks].map(({ id, title }) => [id, title || id]));

/** Items and assignments of the destination that a rubric can be attached to. */
async function gradableThere({ destSnapshot }: Transfer): Promise<Gradable[]> {
  const taken = destSnapshot ? await snapshotById(destSnapshot) : null;
  return taken ? gradableIn(taken) : [];
}

const rubricPair = ({ state, planned, arrived }: ArrivedRubric): RubricPair => ({
  state,
  planned: planned && { title: planned.title, points: rubricPoints(planned) },
  arrived: arrived && { title: arrived.title, points: rubricPoints(arrived) },
  sides: planned && arrived ? rubricSides(planned, arrived) : null,
});

const MOST_OFFERED = 50;

/** Packages that may be what came back. */
const otherPackages = async ({ packageId }: Transfer): Promise<PackageListing[]> =>
  (await broughtPackages(MOST_OFFERED)).filter((p) => p.id !== packageId && p.state === 'ready');
