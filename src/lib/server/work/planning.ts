import {
  bestForecast,
  bestTarget,
  type CourseOutline,
  finding,
  type Finding,
  forecast,
  forecastAll,
  type Holding,
  type Landing,
  lossRepairs,
  planFile,
  planLanding,
  plannedHolding,
  planTroubles,
  type Target,
  UNNAMED,
  whatGoesOut,
  withOutline,
  writeRubrics,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import type { RubricForm } from '../../shared/courses.ts';
import type { Overrides, Plan, TransferOptions } from '../../shared/transfers.ts';
import { loadAsCame, selected, type Selection } from './holdings.ts';
import type { Progress } from './progress.ts';

/** What a destination takes. */
export interface Takes {
  readonly formats: readonly Target[];
  /** Null where it takes no rubrics. */
  readonly rubrics: RubricForm | null;
}

export interface PlanInput extends Selection {
  /** The destination as it stands; null for a file. */
  readonly there: { readonly packageId: string; readonly outline: CourseOutline } | null;
  readonly options: TransferOptions;
  readonly overrides: Overrides;
  readonly fromTerm: string | null;
  readonly toTerm: string | null;
  readonly takes: Takes;
  /** The format chosen by hand; null takes the one that loses least. */
  readonly target: Target | null;
  /** Whether the losses of all formats are counted, for somebody to choose by. */
  readonly allFormats: boolean;
}

/** Losses that are looked at for what would avoid them; each takes some milliseconds. */
const MOST_REPAIRED = 400;

export type PlanResult = Omit<Plan, 'basis'>;

/** How each chosen thing lands, in which format it travels, and what that loses. */
export async function planTask(asked: PlanInput, progress: Progress): Promise<PlanResult> {
  const { holding, outline } = await selected(asked, progress);
  progress('Planning the landing', 0, holding.items.length);
  const landings = await landingsOf(asked, holding, outline, progress);
  const travels = travelling(holding, landings, asked.options, asked.toCourse);
  const { target, findings, losses } = chooseTarget(travels, asked);
  const beside = await rubricsBeside(travels, asked.takes.rubrics);
  // Pairs of a batch are many, and nobody looks at each.
  const repairs = asked.allFormats ? lossRepairs(travels, target, findings, MOST_REPAIRED) : [];
  return {
    landings,
    target,
    findings: [...findings, ...beside.findings],
    repairs: repairs.map(({ at, edits, scores }) => ({ at, edits, scores })),
    losses,
    troubles: planTroubles(landings, asked.there?.outline ?? null),
  };
}

async function landingsOf(
  { there, options, overrides, fromTerm, toTerm }: PlanInput,
  holding: Holding,
  outline: CourseOutline,
  progress: Progress,
): Promise<Landing[]> {
  if (there === null) return planFile(holding, outline, { settings: options.settings, overrides });
  const destination = {
    outline: there.outline,
    holding: withOutline(await loadAsCame(there.packageId, progress), there.outline),
  };
  return planLanding(holding, outline, destination, { ...options, overrides, fromTerm, toTerm });
}

/** The format, what is lost in it, and how much would be in each of the others, where that is asked for. */
function chooseTarget(
  travels: Holding,
  { target, takes, allFormats }: PlanInput,
): { target: Target; findings: readonly Finding[]; losses: Plan['losses'] } {
  if (!allFormats) {
    const one = target === null ? bestTarget(travels, takes.formats) : null;
    return { ...(one ?? { target: target!, findings: forecast(travels, target!) }), losses: [] };
  }
  const all = forecastAll(travels, takes.formats);
  const chosen =
    target === null
      ? bestForecast(all)
      : (all.find((f) => f.target === target) ?? { target, findings: forecast(travels, target) });
  const losses = all.map((f) => ({
    target: f.target,
    losses: f.findings.filter((found) => found.severity !== 'note').length,
  }));
  return { ...chosen, losses };
}

/** What is written; in a course, dates are set at the landing itself, not by the package. */
export function travelling(
  holding: Holding,
  landings: readonly Landing[],
  options: TransferOptions,
  toCourse: boolean,
): Holding {
  const planned = plannedHolding(holding, landings, options.settings);
  if (!toCourse) return planned;
  const out = whatGoesOut(planned, landings);
  const quizzes = out.quizzes.map((q) => ({
    ...q,
    settings: { ...q.settings, opens: null, closes: null },
  }));
  return { ...out, quizzes };
}

/** No package carries rubrics: they go in a file of their own, in the form that the destination takes. */
export async function rubricsBeside(
  { rubrics }: Pick<Holding, 'rubrics'>,
  form: RubricForm | null,
): Promise<{ file: Uint8Array | null; findings: readonly Finding[] }> {
  if (rubrics.length === 0) return { file: null, findings: [] };
  if (form === null)
    return {
      file: null,
      findings: rubrics.map((r) =>
        finding('rubric-not-taken', 'error', { node: r.id }, { rubric: r.title || UNNAMED.rubric }),
      ),
    };
  const { bytes, findings } = await writeRubrics(rubrics, form, nodePlatform);
  return { file: bytes, findings };
}
