import {
  asJudged,
  bestTarget,
  checkAttachments,
  checkLanding,
  compareHoldings,
  fileReader,
  finding,
  forecast,
  landedThings,
  landingKey,
  matchItems,
  nameOf,
  outlineName,
  outlineOfPackage,
  plannedAttachments,
  planLanding,
  plannedHolding,
  planTroubles,
  selectFrom,
  shipmentOf,
  thingsAlone,
  withLooseBank,
  withOutline,
  writeHolding,
  writeRubrics,
  type Comparison,
  type CourseOutline,
  type Finding,
  type Holding,
  type Landing,
  type LandingOverride,
  type Target,
  type Trouble,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { readFile } from 'node:fs/promises';
import type { SystemAbout, TransferOptions } from '../../shared/courses.ts';
import type { ArrivedRubric, Tick } from '../../shared/types.ts';
import {
  chosenFrom,
  load,
  pouchRow,
  total,
  totalsOf,
  type CompareResult,
  type FileRefInput,
  type Progress,
  type SendResult,
} from './tasks.ts';

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
  readonly rubrics: RubricForm;
  /** The format chosen by hand; null takes the one that loses least. */
  readonly target: Target | null;
}

export interface PlanResult {
  readonly landings: readonly Landing[];
  readonly target: Target;
  readonly findings: readonly Finding[];
  readonly troubles: readonly string[];
}

/** How the destination takes rubrics. */
type RubricForm = NonNullable<SystemAbout['rubrics']> | null;

/** Everything that was chosen, as the source says it: package and outline together. */
async function chosen(
  selection: Selection,
  progress: Progress,
): Promise<{ holding: Holding; outline: CourseOutline }> {
  const source = await load(selection.file, progress);
  const outline = selection.outline ?? outlineOfPackage(source);
  const { holding } = selectFrom(withOutline(source, outline), chosenFrom(selection.ticks));
  return { holding: withLooseBank(holding), outline };
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
  const beside = await rubricsBeside(shipment, asked.rubrics);
  return {
    landings,
    target: best.target,
    findings: [...best.findings, ...beside.findings],
    troubles: planTroubles(landings, there.outline),
  };
}

/** No package carries rubrics: they go in a file of their own, in the form that the system takes. */
async function rubricsBeside(
  { rubrics }: Holding,
  form: RubricForm,
): Promise<{ file: Uint8Array | null; findings: readonly Finding[] }> {
  if (rubrics.length === 0) return { file: null, findings: [] };
  if (form === null)
    return {
      file: null,
      findings: rubrics.map((r) =>
        finding('rubric-not-taken', 'error', { node: r.id }, { rubric: r.title || r.id }),
      ),
    };
  const { bytes, findings } = await writeRubrics(rubrics, form, nodePlatform);
  return { file: bytes, findings };
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
  readonly rubrics: RubricForm;
}

export interface ShipResult extends SendResult {
  /** The file of rubrics beside the packages. */
  readonly rubrics: Uint8Array | null;
}

/** Writes what travels; links that the format has no place for go in a cartridge beside it, where the system takes one, and rubrics in a file of their own. */
export async function shipTask(asked: ShipInput, progress: Progress): Promise<ShipResult> {
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
  const beside = await rubricsBeside(shipment, asked.rubrics);
  return {
    contents: [...written.packages, ...links.packages],
    rubrics: beside.file,
    items: shipment.items.length,
    points: total(shipment.items),
    findings: [...written.findings, ...links.findings, ...beside.findings],
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
  readonly rubrics: readonly ArrivedRubric[];
  /** Ids at the destination that each rubric is to be attached to, by landing. */
  readonly attachments: Readonly<Record<string, readonly string[]>>;
  readonly troubles: readonly Trouble[];
  readonly landed: Readonly<Record<string, string>>;
}

interface Sides {
  readonly judged: readonly Landing[];
  readonly planned: Holding;
  readonly there: Holding;
}

/** What was planned and what is there of it, each alone. */
async function sidesOf(asked: ArrivalInput, progress: Progress): Promise<Sides> {
  const { holding } = await chosen(asked, progress);
  const created = new Set(asked.created);
  // What stays as it was there, though it differs, was never to be brought.
  const judged = asked.landings.filter(
    (l) => l.action !== 'skip' || l.existing === 'same' || (l.there !== null && created.has(l.there)),
  );
  const keep = (kind: Landing['kind']): Set<string> =>
    new Set(judged.filter((l) => l.kind === kind).map((l) => l.node));
  const planned = plannedHolding(thingsAlone(holding, keep), asked.landings, asked.options.settings);
  const about = new Set(asked.about);
  const loaded = withOutline(await load(asked.arrived.file, progress), asked.arrived.outline);
  return { judged, planned, there: thingsAlone(loaded, () => about) };
}

/** Ids at the destination by ids in the source: of items, quizzes and banks. */
const arrivedAs = (
  pairs: readonly { readonly source: string; readonly arrived: string }[],
  landed: ReturnType<typeof landedThings>,
): Map<string, string> =>
  new Map([
    ...pairs.map((p): [string, string] => [p.source, p.arrived]),
    ...landed.flatMap(({ landing, thing }): [string, string][] => (thing ? [[landing.node, thing.id]] : [])),
  ]);

export interface AttachResult {
  /** What each rubric of the destination is to be attached to, where it is not yet. */
  readonly attach: readonly {
    readonly thing: string;
    readonly before: readonly string[];
    readonly to: readonly string[];
  }[];
  /** Rubrics that have made way for another and grade nothing from now on. */
  readonly release: readonly { readonly thing: string; readonly before: readonly string[] }[];
  /** Rubrics that have something to be attached to, done or not. */
  readonly planned: number;
}

/** Finds the items at the destination that rubrics are to be attached to; attachments that are there stay. */
export async function attachTask(asked: ArrivalInput, progress: Progress): Promise<AttachResult> {
  const { judged, planned, there } = await sidesOf(asked, progress);
  progress('Finding what the rubrics belong to', 0, planned.items.length);
  const { outline } = asked.arrived;
  const pairs = matchItems(planned.items, there.items).pairs.map((p) => ({
    source: p.source.id,
    arrived: p.arrived.id,
  }));
  const { containers } = compareHoldings({ ...planned, items: [] }, { ...there, items: [] });
  const landed = landedThings(judged, { containers }, outline, asked.created);
  const wanted = plannedAttachments(landed, planned.rubrics, outline, arrivedAs(pairs, landed));
  const attach = wanted.flatMap(({ held: { rubric }, planned: ids }) => {
    const to = [...new Set([...rubric.attachedTo, ...ids])];
    return to.length > rubric.attachedTo.length ? [{ thing: rubric.id, before: rubric.attachedTo, to }] : [];
  });
  const release = judged.flatMap((l) => {
    const older =
      l.kind === 'rubric' && l.action === 'replace'
        ? outline.rubrics?.find((r) => r.rubric.id === l.there)?.rubric
        : undefined;
    return older && older.attachedTo.length > 0 ? [{ thing: older.id, before: older.attachedTo }] : [];
  });
  return { attach, release, planned: wanted.filter((w) => w.planned.length > 0).length };
}

/** Every rubric of the plan beside what became of it, and those of ours that were not planned. */
const rubricsOf = (
  planned: Holding,
  there: Holding,
  { containers }: Pick<Comparison, 'containers'>,
): ArrivedRubric[] =>
  containers
    .filter((c) => c.kind === 'rubric')
    .map((c) => ({
      state: c.state,
      planned: planned.rubrics.find((r) => r.id === c.source) ?? null,
      arrived: there.rubrics.find((r) => r.id === c.arrived) ?? null,
    }));

/** Compares what was planned with what is there now: contents by running both, the landing by the outline. */
export async function arrivalTask(asked: ArrivalInput, progress: Progress): Promise<ArrivalResult> {
  const { judged, planned, there } = await sidesOf(asked, progress);
  progress('Comparing', 0, planned.items.length);
  const { outline } = asked.arrived;
  const comparison = asJudged(compareHoldings(planned, there), judged, asked.options.settings);
  const landed = landedThings(judged, comparison, outline, asked.created);
  const attachments = plannedAttachments(
    landed,
    planned.rubrics,
    outline,
    arrivedAs(comparison.pairs, landed),
  );
  const named = (id: string): string => {
    const item = there.items.find((i) => i.id === id);
    return item ? nameOf(item) : (outlineName(outline, id) ?? id);
  };
  return {
    comparison,
    left: planned.items.map(pouchRow),
    right: there.items.map(pouchRow),
    totals: { left: totalsOf(planned), right: totalsOf(there) },
    rubrics: rubricsOf(planned, there, comparison),
    troubles: [...checkLanding(landed, outline, asked.created), ...checkAttachments(attachments, named)],
    attachments: Object.fromEntries(attachments.map((a) => [landingKey(a.landed.landing), a.planned])),
    landed: Object.fromEntries(landed.flatMap((l) => (l.thing ? [[landingKey(l.landing), l.thing.id]] : []))),
  };
}
