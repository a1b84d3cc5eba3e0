import { setImmediate as comeRound } from 'node:timers/promises';
import {
  asJudged,
  checkAttachments,
  checkLanding,
  compareHoldings,
  comparePlanned,
  landedThings,
  landingId,
  matchItems,
  nameOf,
  outlineName,
  plannedAttachments,
  plannedHolding,
  pouchRows,
  seamRows,
  thingsAlone,
  totalsOf,
  UNNAMED,
  withOutline,
  withoutIntact,
  type Comparison,
  type CourseOutline,
  type Holding,
  type Landing,
  type OnPurpose,
} from '@alforja/core';
import type { Arrival, ArrivedRubric, TransferOptions } from '../../shared/transfers.ts';
import { insertArrivalRows, removeArrivalRows } from '../store/arrivalRows.ts';
import { write } from '../store/database.ts';
import { loadAsCame, selectedAsSent, type Selection } from './holdings.ts';
import type { Progress } from './progress.ts';

export interface ArrivalInput extends Selection {
  readonly landings: readonly Landing[];
  readonly options: TransferOptions;
  readonly arrivedPackageId: string;
  /** Where it landed; null for a file that came back. */
  readonly course: ArrivedCourse | null;
}

export interface CompareInput extends ArrivalInput {
  /** Where the rows of both sides go. */
  readonly seamId: string;
}

export interface ArrivedCourse {
  readonly outline: CourseOutline;
  /** Ids of what this transfer's imports made there. */
  readonly created: readonly string[];
  /** Ids of everything there that the plan speaks of. */
  readonly about: readonly string[];
}

export type ArrivalResult = Omit<Arrival, 'sentSha256' | 'arrivedSha256'>;

interface Sides {
  readonly judged: readonly Landing[];
  readonly planned: Holding;
  /** What would have been planned without any edit; null where nothing was changed. */
  readonly source: Holding | null;
  readonly there: Holding;
  readonly notes: readonly string[];
}

const NO_RUBRICS_IN_PACKAGES =
  'Rubrics went in a file of their own, since no package carries them; what came back holds none, so they were not compared.';

/** What was planned and what is there of it, each alone. */
export async function sidesOf(asked: ArrivalInput, progress: Progress): Promise<Sides> {
  const { holding, source } = await selectedAsSent(asked, progress);
  const arrived = await loadAsCame(asked.arrivedPackageId, progress);
  if (asked.course === null) return fileSides(asked, { holding, source }, arrived);
  const { created, about, outline } = asked.course;
  const made = new Set(created);
  // What stays as it was there, though it differs, was never to be brought.
  const judged = asked.landings.filter(
    (l) => l.action !== 'skip' || l.existing === 'same' || (l.there !== null && made.has(l.there)),
  );
  const keep = (kind: Landing['kind']): Set<string> =>
    new Set(judged.filter((l) => l.kind === kind).map((l) => l.node));
  const plan = (of: Holding): Holding =>
    plannedHolding(thingsAlone(of, keep), asked.landings, asked.options.settings);
  const spokenOf = new Set(about);
  return {
    judged,
    planned: plan(holding),
    source: source && plan(source),
    there: thingsAlone(withOutline(arrived, outline), () => spokenOf),
    notes: [],
  };
}

/** A file that came back is compared whole; rubrics only where it holds some. */
function fileSides(
  asked: ArrivalInput,
  { holding, source }: { readonly holding: Holding; readonly source: Holding | null },
  arrived: Holding,
): Sides {
  const plan = (of: Holding): Holding => plannedHolding(of, asked.landings, asked.options.settings);
  const whole = plan(holding);
  const apart = whole.rubrics.length > 0 && arrived.rubrics.length === 0;
  const compared = (of: Holding): Holding => (apart ? { ...of, rubrics: [] } : of);
  return {
    judged: asked.landings,
    planned: compared(whole),
    source: source && compared(plan(source)),
    there: arrived,
    notes: apart ? [NO_RUBRICS_IN_PACKAGES] : [],
  };
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
  if (asked.course === null) return { attach: [], release: [], planned: 0 };
  const { outline, created } = asked.course;
  progress('Finding what the rubrics belong to', 0, planned.items.length);
  const pairs = matchItems(planned.items, there.items).pairs.map((p) => ({
    source: p.source.id,
    arrived: p.arrived.id,
  }));
  const { containers } = compareHoldings({ ...planned, items: [] }, { ...there, items: [] });
  const landed = landedThings(judged, { containers }, outline, created);
  const wanted = plannedAttachments(landed, planned.rubrics, outline, arrivedAs(pairs, landed));
  const attach = wanted.flatMap(({ held: { rubric }, planned: ids }) => {
    const to = [...new Set([...rubric.attachedTo, ...ids])];
    return to.length > rubric.attachedTo.length ? [{ thing: rubric.id, before: rubric.attachedTo, to }] : [];
  });
  return {
    attach,
    release: judged.flatMap((l) => released(l, outline)),
    planned: wanted.filter((w) => w.planned.length > 0).length,
  };
}

/** The older rubric that a landing takes the place of, where it grades something. */
function released(l: Landing, { rubrics = [] }: CourseOutline): AttachResult['release'] {
  if (l.kind !== 'rubric' || l.action !== 'replace') return [];
  const older = rubrics.find((r) => r.rubric.id === l.there)?.rubric;
  return older && older.attachedTo.length > 0 ? [{ thing: older.id, before: older.attachedTo }] : [];
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
export async function compareTask(asked: CompareInput, progress: Progress): Promise<ArrivalResult> {
  const sides = await sidesOf(asked, progress);
  const { judged, planned, source, there, notes } = sides;
  progress('Comparing', 0, planned.items.length);
  const compared = source
    ? comparePlanned(source, planned, there)
    : { comparison: compareHoldings(planned, there), onPurpose: [] };
  const comparison = asJudged(compared.comparison, judged, asked.options.settings);
  const nameIn = source ? namesIn(source, planned) : () => '';
  const arrival: ArrivalResult = {
    comparison,
    onPurpose: compared.onPurpose.map((p) => ({ ...p, name: nameIn(p) })),
    left: pouchRows(planned.items),
    right: pouchRows(there.items),
    names: Object.fromEntries(asked.landings.map((l) => [landingId(l), l.name])),
    totals: { left: totalsOf(planned), right: totalsOf(there) },
    rubrics: rubricsOf(planned, there, comparison),
    landing: asked.course && landingCheck(sides, comparison, asked.course),
    notes,
  };
  await keepRows(asked.seamId, arrival, progress);
  const graded = [...there.rubrics, ...(asked.course?.outline.rubrics ?? []).map((r) => r.rubric)];
  return withoutIntact(
    arrival,
    graded.flatMap((r) => r.attachedTo),
  );
}

/** Rows that are kept at a time, so that other changes get in between. */
const KEPT_AT_ONCE = 1000;

/** Keeps the rows of both sides; what was kept of them before it was broken off is removed. */
async function keepRows(seamId: string, arrival: ArrivalResult, progress: Progress): Promise<void> {
  const rows = seamRows(arrival);
  await write((tx) => removeArrivalRows(tx, seamId));
  for (let at = 0; at < rows.length; at += KEPT_AT_ONCE) {
    await write((tx) => insertArrivalRows(tx, seamId, rows.slice(at, at + KEPT_AT_ONCE), at));
    await comeRound();
    progress('Keeping both sides', Math.min(rows.length, at + KEPT_AT_ONCE), rows.length);
  }
}

/** What things that were changed are called: as they are planned, or as they were where they do not go. */
function namesIn(source: Holding, planned: Holding): (changed: OnPurpose) => string {
  const items = new Map([...source.items, ...planned.items].map((i) => [i.id, i]));
  const lists = { quiz: 'quizzes', bank: 'banks', rubric: 'rubrics' } as const;
  return ({ kind, node }) => {
    if (kind === 'item') {
      const item = items.get(node);
      return item ? nameOf(item) : UNNAMED.item;
    }
    const things: readonly { readonly id: string; readonly title: string }[] = [
      ...planned[lists[kind]],
      ...source[lists[kind]],
    ];
    return things.find((t) => t.id === node)?.title || UNNAMED[kind];
  };
}

function landingCheck(
  { judged, planned, there }: Sides,
  comparison: Comparison,
  { outline, created }: ArrivedCourse,
): ArrivalResult['landing'] {
  const landed = landedThings(judged, comparison, outline, created);
  const attachments = plannedAttachments(
    landed,
    planned.rubrics,
    outline,
    arrivedAs(comparison.pairs, landed),
  );
  const named = (id: string): string => {
    const item = there.items.find((i) => i.id === id);
    return item ? nameOf(item) : (outlineName(outline, id) ?? UNNAMED.item);
  };
  return {
    troubles: [...checkLanding(landed, outline, created), ...checkAttachments(attachments, named)],
    attachments: Object.fromEntries(attachments.map((a) => [landingId(a.landed.landing), a.planned])),
    landed: Object.fromEntries(landed.flatMap((l) => (l.thing ? [[landingId(l.landing), l.thing.id]] : []))),
    outline,
  };
}
