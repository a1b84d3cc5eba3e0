import type { Item } from '../model/holding.ts';
import type { ResponseDeclaration, Scalar } from '../model/scoring.ts';
import { interactionsOf } from '../model/visit.ts';
import type { Answers } from './evaluate.ts';
import { literalsOf, type Literals } from './literals.ts';
import { clean } from './operators/comparison.ts';

export const MAX_PROBES = 512;
const EXHAUSTIVE_CHOICES = 8;

/** The values worth trying for one response; `exhaustive` when there are no others that matter. */
export interface Candidates {
  readonly values: readonly (readonly Scalar[])[];
  readonly exhaustive: boolean;
}

export interface ProbeSet {
  readonly answers: readonly Answers[];
  /** True when every answer that could be given was tried. */
  readonly exhaustive: boolean;
}

type Probed = Pick<Item, 'body' | 'responses' | 'scoring'>;

/** The choice identifiers a response can take, in document order; empty for responses that are typed. */
export function choiceIds(item: Pick<Item, 'body'>, responseId: string): string[] {
  return interactionsOf(item).flatMap((i) =>
    i.kind === 'choice' && i.responseId === responseId ? i.choices.map((c) => c.id) : [],
  );
}

/** Candidate values for each response of an item, deterministic. `best` is a full-credit answer, if one is known. */
export function candidatesOf(item: Probed, best: Answers = {}): Map<string, Candidates> {
  const literals = literalsOf(item);
  return new Map(
    item.responses.map((response) => {
      const ids = choiceIds(item, response.id);
      const at = literals.get(response.id)!;
      const key = best[response.id] ?? response.correct;
      if (ids.length > 0) return [response.id, choiceCandidates(response, ids, key)];
      const numeric = response.baseType === 'float' || response.baseType === 'integer';
      return [
        response.id,
        { values: numeric ? numberCandidates(at) : textCandidates(at), exhaustive: false },
      ];
    }),
  );
}

function choiceCandidates(
  response: ResponseDeclaration,
  ids: readonly string[],
  key: readonly Scalar[],
): Candidates {
  if (response.cardinality === 'single') return { values: ids.map((id) => [id]), exhaustive: true };
  if (ids.length <= EXHAUSTIVE_CHOICES) {
    const sets: string[][] = [];
    for (let mask = 1; mask < 2 ** ids.length; mask++) sets.push(ids.filter((_, at) => (mask >> at) & 1));
    sets.sort((a, b) => a.length - b.length);
    return { values: sets, exhaustive: true };
  }
  const wanted = key.map(String);
  const inKey = ids.filter((id) => wanted.includes(id));
  const others = ids.filter((id) => !wanted.includes(id));
  return {
    values: [
      ...ids.map((id) => [id]),
      inKey,
      ...inKey.map((gone) => inKey.filter((id) => id !== gone)),
      ...others.map((more) => ids.filter((id) => id === more || wanted.includes(id))),
      [...ids],
    ].filter((set) => set.length > 0),
    exhaustive: false,
  };
}

function textCandidates(at: Literals): Scalar[][] {
  const out = new Set<string>();
  for (const value of [...at.values, ...at.substrings].map(String)) {
    const swapped = value === value.toUpperCase() ? value.toLowerCase() : value.toUpperCase();
    for (const form of [value, swapped, value.toLowerCase(), ` ${value} `, wrongLetter(value), `x${value}x`])
      out.add(form);
  }
  out.add('zzz');
  return [...out].filter((v) => v !== '').map((v) => [v]);
}

/** The same text with its middle letter changed. */
function wrongLetter(value: string): string {
  const letters = [...value];
  const at = Math.floor(letters.length / 2);
  letters[at] = letters[at] === 'q' ? 'k' : 'q';
  return letters.join('');
}

/** Keys, both edges of each tolerance, just inside and just outside, middles, and far away. */
function numberCandidates(at: Literals): Scalar[][] {
  const points = [...new Set([...at.values.filter((v) => typeof v === 'number'), ...at.edges])].sort(
    (a, b) => a - b,
  );
  const out = new Set<number>(points);
  const step = stepBelow(points);
  points.forEach((point, k) => {
    out.add(clean(point - step));
    out.add(clean(point + step));
    const next = points[k + 1];
    if (next !== undefined) out.add(clean((point + next) / 2));
  });
  out.add(clean((points[0] ?? 0) - 1000));
  out.add(clean((points.at(-1) ?? 0) + 1000));
  return [...out].map((v) => [v]);
}

/** One unit in the decimal place after the finest that occurs. */
function stepBelow(points: readonly number[]): number {
  const places = Math.max(0, ...points.map((p) => /\.(\d+)/u.exec(String(p))?.[1]?.length ?? 0));
  return 10 ** -(Math.min(10, places) + 1);
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
  for (let round = 0; round < rounds; round++) {
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
