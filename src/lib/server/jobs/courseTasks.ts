import {
  asJudged, bestTarget, checkLanding, compareHoldings, fileReader, forecast, landedThings, landingKey, outlineOfPackage, planLanding, plannedHolding,
  planTroubles, selectFrom, shipmentOf, withLooseBank, withOutline, writeHolding,
  type CourseOutline, type Finding, type Holding, type Landing, type LandingOverride, type Target, type Trouble,
} from '@alforja/core'; // prettier-ignore
import { nodePlatform } from '@alforja/core/node';
import { readFile } from 'node:fs/promises';
import type { TransferOptions } from '../../shared/courses.ts';
import type { Tick } from '../../shared/types.ts';
import { chosenFrom, load, pouchRow, total, totalsOf, type CompareResult, type FileRefInput, type Progress, type SendResult } from './tasks.ts'; // prettier-ignore

/** What runs in worker threads for transfers into a course. */

interface Selection {
  readonly file: FileRefInput;
  readonly ticks: readonly Tick[];
  /** What the source course's outline says; null for a file in hand. */
  readonly outline: CourseOutline | null;
}

export interface PlanInput extends Selection {
  readonly there: { readonly file: FileRefInput; readonly outline: CourseOutline };
  readonly options: TransferOptions;
  readonly overrides: Readonly<Record<string, LandingOverride>>;
  readonly fromTerm: string | null;
  readonly toTerm: string | null;
  readonly takes: readonly Target[];
  /** The format chosen by hand; null takes the one that loses least. */
  readonly target: Target | null;
}

export interface PlanResult {
  readonly landings: readonly Landing[];
  readonly target: Target;
  readonly findings: readonly Finding[];
  readonly troubles: readonly string[];
}

/** Everything that was chosen, as the source says it: package and outline together. */
async function chosen(
  selection: Selection,
  progress: Progress,
): Promise<{ holding: Holding; outline: CourseOutline }> {
  const source = await load(selection.file, progress);
  const outline = selection.outline ?? outlineOfPackage(source);
  const { holding } = selectFrom(source, chosenFrom(selection.ticks));
  return { holding: withLooseBank(withOutline(holding, outline)), outline };
}

/** How each chosen thing lands, in which format it travels, and what that loses. */
export async function planTask(asked: PlanInput, progress: Progress): Promise<PlanResult> {
  const { holding, outline } = await chosen(asked, progress);
  const there = {
    outline: asked.there.outline,
    holding: withOutline(await load(asked.there.file, progress), asked.there.outline),
  };
  progress('Planning the landing', 0, holding.items.length);
  const { options, overrides, fromTerm, toTerm, target, takes } = asked;
  const landings = planLanding(holding, outline, there, { ...options, overrides, fromTerm, toTerm });
  const shipment = travelling(holding, landings, options);
  const best =
    target === null ? bestTarget(shipment, takes) : { target, findings: forecast(shipment, target) };
  return { landings, ...best, troubles: planTroubles(landings, there.outline) };
}

/** Dates are set at the landing itself, not by the package. */
function travelling(holding: Holding, landings: readonly Landing[], options: TransferOptions): Holding {
  const shipment = shipmentOf(plannedHolding(holding, landings, options.settings), landings);
  const quizzes = shipment.quizzes.map((q) => ({
    ...q,
    settings: { ...q.settings, opens: null, closes: null },
  }));
  return { ...shipment, quizzes };
}

export interface ShipInput extends Selection {
  readonly landings: readonly Landing[];
  readonly options: TransferOptions;
  readonly target: Target;
  readonly takes: readonly Target[];
}

/** Writes what travels; links that the format has no place for go in a cartridge beside it, where the system takes one. */
export async function shipTask(asked: ShipInput, progress: Progress): Promise<SendResult> {
  const { holding } = await chosen(asked, progress);
  const shipment = travelling(holding, asked.landings, asked.options);
  progress('Writing the package', 0, shipment.items.length);
  const reader = await fileReader(asked.file.name, await readFile(asked.file.path), nodePlatform);
  const cartridge = asked.target.startsWith('cc') ? null : asked.takes.find((t) => t.startsWith('cc'));
  const apart = cartridge !== undefined && cartridge !== null && shipment.links.length > 0;
  const main = apart ? { ...shipment, links: [] } : shipment;
  const empty = main.quizzes.length + main.banks.length + main.links.length === 0;
  const written = empty ? { packages: [], findings: [] } : writeHolding(main, asked.target, reader);
  const links = apart
    ? writeHolding(
        { ...shipment, quizzes: [], banks: [], items: [], files: [], outline: [] },
        cartridge,
        reader,
      )
    : { packages: [], findings: [] };
  return {
    contents: [...written.packages, ...links.packages],
    items: shipment.items.length,
    points: total(shipment.items),
    findings: [...written.findings, ...links.findings],
  };
}

export interface ArrivalInput extends Selection {
  readonly landings: readonly Landing[];
  readonly options: TransferOptions;
  readonly arrived: { readonly file: FileRefInput; readonly outline: CourseOutline };
  /** Ids of what this transfer's imports made there. */
  readonly created: readonly string[];
  /** Ids of everything there that the plan speaks of. */
  readonly about: readonly string[];
}

export interface ArrivalResult extends CompareResult {
  readonly troubles: readonly Trouble[];
  readonly landed: Readonly<Record<string, string>>;
}

/** Compares what was planned with what is there now: contents by running both, the landing by the outline. */
export async function arrivalTask(asked: ArrivalInput, progress: Progress): Promise<ArrivalResult> {
  const { holding } = await chosen(asked, progress);
  const created = new Set(asked.created);
  // What stays as it was there, though it differs, was never to be brought.
  const judged = asked.landings.filter(
    (l) => l.action !== 'skip' || l.existing === 'same' || (l.there !== null && created.has(l.there)),
  );
  const keep = (kind: Landing['kind']): Set<string> =>
    new Set(judged.filter((l) => l.kind === kind).map((l) => l.node));
  const going = selectFrom(holding, { quizzes: keep('quiz'), banks: keep('bank'), links: keep('link'), items: new Set() }).holding; // prettier-ignore
  const planned = plannedHolding(going, asked.landings, asked.options.settings);
  const loaded = await load(asked.arrived.file, progress);
  const about = new Set(asked.about);
  const there = withOutline(selectFrom(loaded, { quizzes: about, banks: about, links: about, items: new Set() }).holding, asked.arrived.outline); // prettier-ignore
  progress('Comparing', 0, planned.items.length);
  const comparison = asJudged(compareHoldings(planned, there), judged, asked.options.settings);
  const landed = landedThings(judged, comparison, asked.arrived.outline, asked.created);
  return {
    comparison,
    left: planned.items.map(pouchRow),
    right: there.items.map(pouchRow),
    totals: { left: totalsOf(planned), right: totalsOf(there) },
    troubles: checkLanding(landed, asked.arrived.outline, asked.created),
    landed: Object.fromEntries(landed.flatMap((l) => (l.thing ? [[landingKey(l.landing), l.thing.id]] : []))), // prettier-ignore
  };
}
