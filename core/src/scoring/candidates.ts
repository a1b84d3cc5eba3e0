import type { Item } from '../model/holding.ts';
import type { ResponseDeclaration, Scalar } from '../model/scoring.ts';
import { interactionFor } from '../model/options.ts';
import { areaProbes, type Size } from './geometry.ts';
import { spend } from './budget.ts';
import { eachExpr, type Literals } from './literals.ts';
import { clean } from './operators/comparison.ts';

/** The values worth trying for one response; `exhaustive` when there are no others that matter. */
export interface Candidates {
  readonly values: readonly (readonly Scalar[])[];
  readonly exhaustive: boolean;
}

/** So many of one sort are listed: nobody tries more. */
export const LISTED = 1024;
const EXHAUSTIVE_CHOICES = 8;
const EXHAUSTIVE_ORDER = 4;
/** Wrong values that each right one is replaced by. */
const MAX_REPLACED = 3;

/** Single choices; every set of them up to eight, else the key, one less, one more, and all. */
export function subsetCandidates(
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
  const wanted = new Set(key.map(String));
  const inKey = ids.filter((id) => wanted.has(id));
  const others = ids.filter((id) => !wanted.has(id));
  const mapped = new Set(
    (response.mapping?.entries ?? []).filter((e) => e.value > 0).map((e) => String(e.key)),
  );
  const only = (holds: (id: string) => boolean): string[] => {
    spend(ids.length >> 3);
    return ids.filter(holds);
  };
  return {
    values: distinctLists([
      ...ids.map((id) => [id]),
      inKey,
      only((id) => mapped.has(id)),
      ...inKey.slice(0, LISTED).map((gone) => only((id) => wanted.has(id) && id !== gone)),
      ...others.slice(0, LISTED).map((more) => only((id) => id === more || wanted.has(id))),
      ...inKey
        .slice(0, LISTED)
        .flatMap((gone) =>
          others
            .slice(0, MAX_REPLACED)
            .map((come) => only((id) => id !== gone && (id === come || wanted.has(id)))),
        ),
      [...ids],
    ]),
    exhaustive: false,
  };
}

/** The right order, neighbours swapped, reversed, each one first, one left out; every order of up to four. */
export function orderCandidates(ids: readonly string[], key: readonly Scalar[]): Candidates {
  const right = key.length > 0 ? key.map(String) : [...ids];
  const out: string[][] = [right];
  const few = right.slice(0, LISTED);
  spend((3 * few.length * right.length) >> 3);
  few.slice(0, right.length - 1).forEach((_, at) => {
    const swapped = [...right];
    [swapped[at], swapped[at + 1]] = [swapped[at + 1]!, swapped[at]!];
    out.push(swapped);
  });
  out.push([...right].reverse(), [...ids]);
  for (const id of few) out.push([id, ...right.filter((r) => r !== id)]);
  few.forEach((_, at) => out.push(right.filter((_, k) => k !== at)));
  for (const id of ids) out.push([id]);
  if (ids.length <= EXHAUSTIVE_ORDER) out.push(...permutations(ids));
  return { values: distinctLists(out), exhaustive: false };
}

function permutations(ids: readonly string[]): string[][] {
  if (ids.length <= 1) return [[...ids]];
  return ids.flatMap((id) => permutations(ids.filter((i) => i !== id)).map((rest) => [id, ...rest]));
}

/** The middle of each area, its border and just outside; all middles together; one area twice. */
export function pointCandidates(
  item: Pick<Item, 'body' | 'scoring'>,
  response: ResponseDeclaration,
  at: Literals,
): Candidates {
  const interaction = interactionFor(item, response.id);
  const size: Size =
    interaction?.kind === 'positionObject'
      ? interaction.stage
      : interaction && 'picture' in interaction
        ? interaction.picture
        : { width: null, height: null };
  const areas = (response.areaMapping?.entries ?? []).map((e) => areaProbes(e.shape, e.coords, size));
  eachExpr(item.scoring.rules, (expr) => {
    if (expr.op === 'call' && expr.name === 'inside')
      areas.push(
        areaProbes((expr.attrs?.['shape'] ?? 'default') as 'rect', expr.attrs?.['coords'] ?? '', size),
      );
  });
  const said = ([x, y]: readonly [number, number]): string => `${clean(x)} ${clean(y)}`;
  const middles = areas.flatMap((a) => a.inside.map(said));
  const values: string[][] = [
    ...at.values.map((v) => [String(v)]),
    ...areas.flatMap((a) => [...a.inside, ...a.border, ...a.outside].map((p) => [said(p)])),
    ['-9999 -9999'],
  ];
  if (response.cardinality !== 'single') {
    const [first] = areas;
    values.unshift(middles);
    if (first) values.push([...first.inside, ...first.border].map(said), [...middles, '-9999 -9999']);
  }
  return { values: distinctLists(values.filter((v) => v.length > 0)), exhaustive: false };
}

/**
 * Each text as it is, in other capitals, with blanks, with a letter wrong; numbers also with a comma and as
 * powers of ten.
 */
export function textCandidates(at: Literals, several: boolean): Scalar[][] {
  const out = new Set<string>();
  for (const value of [...at.values, ...at.substrings, ...at.patterns.flatMap(sampleOf)].map(String)) {
    spend(1 + (value.length >> 3));
    for (const form of [
      value,
      otherCase(value),
      value.toLowerCase(),
      ` ${value} `,
      wrongLetter(value),
      `x${value}x`,
    ])
      out.add(form);
    const n = Number(value);
    if (value.trim() !== '' && Number.isFinite(n)) {
      out.add(value.replace('.', ','));
      out.add(n.toExponential());
    }
  }
  out.add('zzz');
  const single = [...out].filter((v) => v !== '').map((v) => [v]);
  return several ? [at.values.map(String), ...single].filter((v) => v.length > 0) : single;
}

/** The same letters in the other case, those left alone that change into others on the way ("ß" and "SS"). */
export function otherCase(text: string): string {
  const upper = text === text.toLowerCase();
  return Array.from(text, (c) => {
    const other = upper ? c.toUpperCase() : c.toLowerCase();
    return other.toLowerCase() === c.toLowerCase() ? other : c;
  }).join('');
}

/** A text that a simple pattern accepts: alternatives one by one, classes by their first member. */
function sampleOf(pattern: string): string[] {
  return pattern
    .replace(/^\^|\$$/gu, '')
    .split('|')
    .slice(0, 8)
    .map((part) =>
      part
        .replace(/\\d/gu, '1')
        .replace(/\\s/gu, ' ')
        .replace(/\\w/gu, 'a')
        .replace(/\[\^[^\]]*\]/gu, 'z')
        .replace(/\[(\\?.)[^[\]]*\]/gu, '$1')
        .replace(/\(\?:/gu, '(')
        .replace(/[()]/gu, '')
        .replace(/.[?*]/gu, '')
        .replace(/\+|\{[^{}]*\}/gu, '')
        .replace(/\\(.)/gu, '$1'),
    );
}

/** The same text with its middle letter changed. */
function wrongLetter(value: string): string {
  const letters = [...value];
  const at = Math.floor(letters.length / 2);
  letters[at] = letters[at] === 'q' ? 'k' : 'q';
  return letters.join('');
}

/** Keys, both edges of each tolerance, just inside and just outside, middles, and far away. */
export function numberCandidates(at: Literals, bounds: readonly number[] = []): Scalar[][] {
  spend((at.values.length + at.edges.length) >> 2);
  const points = [
    ...new Set([...at.values.filter((v) => typeof v === 'number'), ...at.edges, ...bounds]),
  ].sort((a, b) => a - b);
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
  const places = points.reduce((most, p) => Math.max(most, /\.(\d+)/u.exec(String(p))?.[1]?.length ?? 0), 0);
  return 10 ** -(Math.min(10, places) + 1);
}

/** Lists without repeats and without empty ones. */
export function distinctLists<T extends Scalar>(lists: readonly (readonly T[])[]): T[][] {
  spend(lists.reduce((n, l) => n + 1 + (l.length >> 2), 0));
  const seen = new Map(lists.map((l) => [l.join('\u0001'), [...l]]));
  seen.delete('');
  return [...seen.values()];
}
