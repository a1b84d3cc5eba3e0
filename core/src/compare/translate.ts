import type { Item } from '../model/holding.ts';
import type { Scalar } from '../model/scoring.ts';
import { interactionFor, optionSets, type Option } from '../model/options.ts';
import { pairEnds } from '../scoring/probe.ts';
import type { Answers } from '../scoring/evaluate.ts';
import { put } from '../model/own.ts';
import { optionKey, optionShown, type Side } from './side.ts';

/** How the identifiers of one item read in the other. */
export interface Translation {
  /** Answers of the source item in the arrived item's identifiers; null where a choice has no counterpart. */
  readonly forward: (answers: Answers) => Answers | null;
  readonly back: (answers: Answers) => Answers | null;
  /** Source choice id (within its response) to arrived choice id. */
  readonly choices: ReadonlyMap<string, string>;
}

/** The key of an option that says and shows nothing and stands nowhere. */
const NOTHING = '\u0001';

/** One response's options on one side: one set, or two for those that pair. */
type Sets = readonly ReadonlyMap<string, string>[];

/**
 * Pairs responses by identifier, else by order; choices by what they say, then by identifier, then by place.
 */
export function translate(source: Side, arrived: Side): Translation {
  const responses = pairResponses(source.item, arrived.item);
  const forth = new Map<string, Sets>();
  const back = new Map<string, Sets>();
  const choices = new Map<string, string>();
  for (const [from, to] of responses) {
    const [left, right] = [optionsFor(source.item, from), optionsFor(arrived.item, to)];
    const sets = left.map((options, at) => pairOptions(options, right[at] ?? [], source, arrived));
    forth.set(
      from,
      sets.map((pairs) => new Map(pairs)),
    );
    back.set(
      to,
      sets.map((pairs) => new Map(pairs.map(([a, b]) => [b, a]))),
    );
    for (const pairs of sets) for (const [a, b] of pairs) choices.set(a, b);
  }
  const reverse = new Map([...responses].map(([a, b]) => [b, a]));
  return {
    choices,
    forward: (answers) => convert(answers, source.item, responses, forth),
    back: (answers) => convert(answers, arrived.item, reverse, back),
  };
}

function convert(
  answers: Answers,
  item: Item,
  responses: ReadonlyMap<string, string>,
  options: ReadonlyMap<string, Sets>,
): Answers | null {
  const out: Record<string, readonly Scalar[]> = {};
  for (const [id, values] of Object.entries(answers)) {
    const to = responses.get(id);
    if (to === undefined) return null;
    const sets = options.get(id) ?? [];
    const paired = pairEnds(interactionFor(item, id)) !== null;
    const mapped = values.map((v) => translateValue(v, sets, paired));
    if (mapped.some((v) => v === undefined)) return null;
    put(out, to, mapped as Scalar[]);
  }
  return out;
}

function translateValue(value: Scalar, sets: Sets, paired: boolean): Scalar | undefined {
  if (sets.length === 0) return value;
  if (!paired) return sets[0]!.get(String(value));
  const [a = '', b = ''] = String(value).split(' ');
  const left = sets[0]!.get(a);
  const right = (sets[1] ?? sets[0]!).get(b);
  return left === undefined || right === undefined ? undefined : `${left} ${right}`;
}

function pairResponses(source: Item, arrived: Item): Map<string, string> {
  const left = source.responses.map((r) => r.id);
  const right = arrived.responses.map((r) => r.id);
  const same = left.length === right.length && left.every((id) => right.includes(id));
  return new Map(
    left.flatMap((id, at) => (same ? [[id, id]] : right[at] !== undefined ? [[id, right[at]!]] : [])),
  );
}

function optionsFor(item: Pick<Item, 'body'>, responseId: string): readonly (readonly Option[])[] {
  const interaction = interactionFor(item, responseId);
  return interaction ? optionSets(interaction) : [];
}

function pairOptions(
  left: readonly Option[],
  right: readonly Option[],
  source: Side,
  arrived: Side,
): [string, string][] {
  const key = new Map<Option, string>([
    ...left.map((o) => [o, optionKey(o, source.files)] as const),
    ...right.map((o) => [o, optionKey(o, arrived.files)] as const),
  ]);
  const pairs: [string, string][] = [];
  let restLeft = [...left];
  let restRight = [...right];
  const take = (matches: (a: Option, b: Option) => boolean): void => {
    for (const a of [...restLeft]) {
      const b = restRight.find((c) => matches(a, c));
      if (!b) continue;
      pairs.push([a.id, b.id]);
      restLeft = restLeft.filter((c) => c !== a);
      restRight = restRight.filter((c) => c !== b);
    }
  };
  const said = (o: Option): boolean => key.get(o) !== NOTHING;
  take((a, b) => a.id === b.id && key.get(a) === key.get(b));
  take((a, b) => said(a) && key.get(a) === key.get(b));
  take((a, b) => optionShown(a) !== '' && optionShown(a) === optionShown(b));
  take((a, b) => a.id === b.id);
  restLeft.forEach((a, at) => {
    const b = restRight[at];
    if (b && restLeft.length === restRight.length) pairs.push([a.id, b.id]);
  });
  return pairs;
}
