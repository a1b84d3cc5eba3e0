import { landingId, rubricPoints, rubricSides, speak, type Finding, type Tick } from '@alforja/core';
import type { ArrivalShown, RubricPair } from '../../shared/arrival.ts';
import type { ContentsList, ContentsShown } from '../../shared/contents.ts';
import { lossView, namedOf, type LossView } from '../../shared/losses.ts';
import type { Receipt } from '../../shared/receipt.ts';
import type { Stage } from '../../shared/stages.ts';
import type {
  Arrival,
  ArrivedRubric,
  ForecastLoss,
  Gradable,
  Plan,
  SentShown,
  TransferState,
} from '../../shared/transfers.ts';
import type { JobKind, JobView, PackageListing } from '../../shared/types.ts';
import { appliedEdits, sameEdits } from '../library/layers.ts';
import { broughtPackages } from '../library/packages.ts';
import { itemsNamed } from '../store/items.ts';
import { latestJobs } from '../store/jobs.ts';
import { packageListing } from '../store/packages.ts';
import { snapshotById } from '../store/snapshots.ts';
import { sameTicks, ticksOf } from '../store/ticks.ts';
import { transferById, type Transfer } from '../store/transfers.ts';
import { callingIn } from '../work/calling.ts';
import { forecastOf } from './forecast.ts';
import { gradableIn } from './gradable.ts';
import { differencesShown } from './judged.ts';
import { receiptOf } from './receipt.ts';
import { shortReceipt } from './receiptShort.ts';
import { seamView } from './seam.ts';
import { contentsFor, contentsListFor, sourceOf, type TransferSource } from './source.ts';
import { stateOf } from './state.ts';

/** What every stage of a transfer's page shows. */
interface TransferPage {
  readonly transfer: Pick<Transfer, 'id' | 'title' | 'target' | 'sentAt' | 'comparedAt'>;
  readonly stage: Stage;
  readonly source: PackageListing;
  readonly sha256: string;
  readonly contents: ContentsShown;
  readonly state: TransferState;
  readonly jobs: Partial<Record<JobKind, JobView>>;
  readonly sent: SentShown | null;
  /** How much the format lost when it was written, notes not counted. */
  readonly lost: number;
  /** How much the format will lose of what is ticked now, notes not counted; null while it is being worked out. */
  readonly ahead: number | null;
  /** Whether ticks or format were changed since it was written. */
  readonly stale: boolean;
  readonly counts: Arrival['comparison']['counts'] | null;
  readonly arrived: PackageListing | null;
  /** Only the stage in sight brings its own, possibly long, lists. */
  readonly picking: Picking | null;
  /** What the format will lose, or what it lost. */
  readonly losses: LossView | null;
  readonly gradable: readonly Gradable[];
  readonly arrival: ArrivalShown | null;
  readonly others: readonly PackageListing[];
  readonly receipt: Receipt | null;
}

interface Picking {
  readonly list: ContentsList;
  readonly ticks: readonly Tick[];
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
  const { tree: _, readingId: __, sha256, families: ___, putRight: ____, ...listing } = source.package;
  // What is shown of the plan is of the one that the transfer holds.
  const plan = state.plan && transfer.plan;
  return {
    transfer: { id, title: transfer.title, target: state.plan?.target ?? target, sentAt, comparedAt },
    stage,
    source: listing,
    sha256,
    contents: await contentsFor(source, ticks),
    state,
    jobs: await latestJobs(id),
    sent: sent && { parts: sent.parts, items: sent.items, points: sent.points, again: sent.again },
    lost: real(sent?.findings ?? []),
    ahead: plan && real(plan.findings),
    stale:
      sent !== null &&
      (!sameTicks(sent.ticks, ticks) ||
        sent.target !== target ||
        !sameEdits(sent.layer, await appliedEdits(transfer.packageId))),
    counts: arrival?.comparison.counts ?? null,
    arrived: transfer.arrivedPackageId ? await packageListing(transfer.arrivedPackageId) : null,
    picking: stage === 'contents' ? await pickingOf(source, ticks) : null,
    losses: await lossesFor(stage, transfer, source, plan),
    gradable: stage === 'landing' ? await gradableThere(transfer) : [],
    arrival: stage === 'arrival' && arrival ? await arrivalShown(transfer, arrival) : null,
    others: stage === 'arrival' ? await otherPackages(transfer) : [],
    receipt: stage === 'receipt' ? await receiptShown(transfer) : null,
  };
}

const real = (findings: readonly Pick<Finding, 'severity'>[]): number =>
  findings.filter((f) => f.severity !== 'note').length;

const pickingOf = async (source: TransferSource, ticks: readonly Tick[]): Promise<Picking> => ({
  list: await contentsListFor(source, ''),
  ticks,
});

async function lossesFor(
  stage: Stage,
  { sent, destCourse }: Transfer,
  source: TransferSource,
  plan: Plan | null,
): Promise<LossView | null> {
  const called = callingIn(source.tree);
  const losses =
    stage === 'forecast'
      ? plan && forecastOf(plan, called)
      : stage === 'send' && destCourse === null && sent
        ? sent.findings.map((f): ForecastLoss => speak(f))
        : null;
  if (!losses) return null;
  const named = await itemsNamed(source.package.readingId!, namedOf(losses));
  return lossView(losses, (id) => named.get(id) ?? { name: called(id), seq: null });
}

async function arrivalShown(transfer: Transfer, arrival: Arrival): Promise<ArrivalShown> {
  const { comparison, names, onPurpose, rubrics } = arrival;
  return {
    verdict: comparison.verdict,
    onPurpose: onPurpose.length,
    quizzes: comparison.containers.flatMap((c) =>
      c.kind === 'quiz' && c.source !== null && c.arrived !== null
        ? [{ id: c.source, name: names[landingId({ kind: 'quiz', node: c.source })] ?? c.source }]
        : [],
    ),
    differences: await differencesShown(transfer),
    seam: await seamView(transfer, arrival),
    rubrics: rubrics.map(rubricPair),
  };
}

async function receiptShown(transfer: Transfer): Promise<Receipt | null> {
  const receipt = await receiptOf(transfer);
  return receipt && shortReceipt(receipt);
}

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
