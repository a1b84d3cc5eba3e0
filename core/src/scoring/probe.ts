import type { Item } from '../model/holding.ts';
import type { Interaction } from '../model/content.ts';
import type { ResponseDeclaration, Scalar } from '../model/scoring.ts';
import { interactionFor, optionSets } from '../model/options.ts';
import type { Answers } from './evaluate.ts';
import { literalsOf, type Literals } from './literals.ts';
import {
  type Candidates,
  numberCandidates,
  orderCandidates,
  pointCandidates,
  subsetCandidates,
  textCandidates,
} from './candidates.ts';
import { own } from '../model/own.ts';
import { pairCandidates } from './pairCandidates.ts';
import { clean } from './operators/comparison.ts';
import { possibleValue } from './possible.ts';

const MAX_PROBES = 512;

interface ProbeSet {
  readonly answers: readonly Answers[];
  /** True when every answer that could be given was tried. */
  readonly exhaustive: boolean;
}

type Probed = Pick<Item, 'body' | 'responses' | 'scoring'>;

/**
 * The identifiers a response can take, in document order; empty for responses that are typed, paired or
 * pointed at.
 */
export function choiceIds(item: Pick<Item, 'body'>, responseId: string): string[] {
  const interaction = interactionFor(item, responseId);
  return interaction ? pickedIds(interaction) : [];
}

function pickedIds(interaction: Interaction): string[] {
  switch (interaction.kind) {
    case 'choice':
    case 'order':
    case 'inlineChoice':
    case 'hottext':
    case 'hotspot':
    case 'graphicOrder':
      return optionSets(interaction)[0]!.map((o) => o.id);
    case 'match':
      return interaction.rows ? interaction.right.map((c) => c.id) : [];
    default:
      return [];
  }
}

/**
 * What the two ends of a pair can be; the same list twice where pairs have no direction. Null for other
 * responses.
 */
export function pairEnds(
  interaction: Interaction | null,
): { left: string[]; right: string[]; directed: boolean } | null {
  if (!interaction) return null;
  const sets = (): string[][] => optionSets(interaction).map((s) => s.map((o) => o.id));
  switch (interaction.kind) {
    case 'associate':
    case 'graphicAssociate': {
      const [all] = sets();
      return { left: all!, right: all!, directed: false };
    }
    case 'gapMatch':
    case 'graphicGapMatch': {
      const [left, right] = sets();
      return { left: left!, right: right!, directed: true };
    }
    case 'match': {
      if (interaction.rows) return null;
      const [left, right] = sets();
      return { left: left!, right: right!, directed: true };
    }
    default:
      return null;
  }
}

/**
 * Candidate values for each response of an item, deterministic. `best` is a full-credit answer, if one is
 * known.
 */
export function candidatesOf(item: Probed, best: Answers = {}): Map<string, Candidates> {
  const literals = literalsOf(item);
  return new Map(
    item.responses.map((response) => [
      response.id,
      candidatesFor(item, response, literals.get(response.id)!, own(best, response.id) ?? response.correct),
    ]),
  );
}

/** Only what can be answered; everything, where a source forbids all of it. */
function candidatesFor(
  item: Probed,
  response: ResponseDeclaration,
  at: Literals,
  key: readonly Scalar[],
): Candidates {
  const interaction = interactionFor(item, response.id);
  const all = anyCandidates(item, interaction, response, at, key);
  const possible = all.values.filter((v) => possibleValue(interaction, response, v));
  return possible.length > 0 ? { ...all, values: possible } : all;
}

function anyCandidates(
  item: Probed,
  interaction: Interaction | null,
  response: ResponseDeclaration,
  at: Literals,
  key: readonly Scalar[],
): Candidates {
  const ids = interaction ? pickedIds(interaction) : [];
  if (ids.length > 0)
    return response.cardinality === 'ordered'
      ? orderCandidates(ids, key)
      : subsetCandidates(response, ids, key);
  const ends = pairEnds(interaction);
  if (ends)
    return pairCandidates(
      response,
      ends,
      [...key, ...(response.mapping?.entries.map((e) => e.key) ?? [])],
      key,
    );
  if (response.baseType === 'point') return pointCandidates(item, response, at);
  if (response.baseType === 'boolean') return { values: [[true], [false]], exhaustive: true };
  if (response.baseType === 'file') return { values: [['file']], exhaustive: true };
  const numeric =
    response.baseType === 'float' || response.baseType === 'integer' || response.baseType === 'duration';
  const slider = interaction?.kind === 'slider' ? interaction : null;
  const bounds = slider ? [slider.lowerBound, slider.upperBound] : [];
  const step = slider?.step ?? (response.baseType === 'integer' ? 1 : null);
  return {
    values: numeric
      ? onSteps(numberCandidates(at, bounds), slider?.lowerBound ?? 0, step)
      : textCandidates(at, response.cardinality !== 'single'),
    exhaustive: false,
  };
}

/** Numbers moved to the steps on either side of them, where only steps can be answered. */
function onSteps(values: Scalar[][], from: number, step: number | null): Scalar[][] {
  if (step === null || step <= 0) return values;
  const moved = values.flatMap(([v]) => {
    const at = (Number(v) - from) / step;
    return [Math.floor(at), Math.ceil(at)].map((n) => clean(from + n * step));
  });
  return [...new Set(moved)].map((v) => [v]);
}

/**
 * A bounded, deterministic set of answers chosen to tell scoring rules apart: nothing at all, then each
 * candidate of each response with the others at their best, then alone.
 */
export function probesOf(item: Probed, best: Answers, limit = MAX_PROBES): ProbeSet {
  const candidates = candidatesOf(item, best);
  const answers: Answers[] = [{}];
  const several = item.responses.length > 1;
  if (several) answers.push(best);
  const rounds = Math.max(0, ...[...candidates.values()].map((c) => c.values.length));
  for (let round = 0; round < rounds && answers.length < 2 * limit; round++) {
    for (const [id, { values }] of candidates) {
      const value = values[round];
      if (!value) continue;
      answers.push(several ? { ...best, [id]: value } : { [id]: value });
      if (several) answers.push({ [id]: value });
    }
  }
  if (several) for (const id of candidates.keys()) answers.push({ ...best, [id]: [] });
  const exhaustive =
    !several && answers.length <= limit && [...candidates.values()].every((c) => c.exhaustive);
  return { answers: answers.slice(0, limit), exhaustive };
}
