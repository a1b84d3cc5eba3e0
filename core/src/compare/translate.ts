import { canonicalMath, canonicalText } from '../match/canonical.ts';
import type { Choice } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import type { Scalar } from '../model/scoring.ts';
import { interactionsOf, walk } from '../model/visit.ts';
import type { Answers } from '../scoring/evaluate.ts';

/** How the identifiers of one item read in the other. */
export interface Translation {
  /** Answers of the source item in the arrived item's identifiers; null where a choice has no counterpart. */
  readonly forward: (answers: Answers) => Answers | null;
  readonly back: (answers: Answers) => Answers | null;
  /** Source choice id (within its response) to arrived choice id. */
  readonly choices: ReadonlyMap<string, string>;
}

/** Pairs responses by identifier, else by order; choices by what they say, then by identifier, then by place. */
export function translate(source: Item, arrived: Item): Translation {
  const responses = pairResponses(source, arrived);
  const choices = new Map<string, string>();
  for (const [from, to] of responses) {
    for (const [a, b] of pairChoices(choicesFor(source, from), choicesFor(arrived, to)))
      choices.set(keyOf(from, a), keyOf(to, b));
  }
  const reverseResponses = new Map([...responses].map(([a, b]) => [b, a]));
  const reverseChoices = new Map([...choices].map(([a, b]) => [b, a]));
  return {
    choices: new Map(
      [...choices].map(([a, b]) => [a.slice(a.indexOf('\u0000') + 1), b.slice(b.indexOf('\u0000') + 1)]),
    ),
    forward: (answers) => convert(answers, source, responses, choices),
    back: (answers) => convert(answers, arrived, reverseResponses, reverseChoices),
  };
}

const keyOf = (response: string, choice: string): string => `${response}\u0000${choice}`;

function convert(
  answers: Answers,
  item: Item,
  responses: ReadonlyMap<string, string>,
  choices: ReadonlyMap<string, string>,
): Answers | null {
  const out: Record<string, readonly Scalar[]> = {};
  for (const [id, values] of Object.entries(answers)) {
    const to = responses.get(id);
    if (to === undefined) return null;
    if (choicesFor(item, id).length === 0) {
      out[to] = values;
      continue;
    }
    const mapped = values.map((v) => choices.get(keyOf(id, String(v))));
    if (mapped.some((v) => v === undefined)) return null;
    out[to] = mapped.map((v) => v!.slice(v!.indexOf('\u0000') + 1));
  }
  return out;
}

function pairResponses(source: Item, arrived: Item): Map<string, string> {
  const left = source.responses.map((r) => r.id);
  const right = arrived.responses.map((r) => r.id);
  const same = left.length === right.length && left.every((id) => right.includes(id));
  return new Map(
    left.flatMap((id, at) => (same ? [[id, id]] : right[at] !== undefined ? [[id, right[at]!]] : [])),
  );
}

export function choicesFor(item: Pick<Item, 'body'>, responseId: string): Choice[] {
  return interactionsOf(item).flatMap((i) =>
    i.kind === 'choice' && i.responseId === responseId ? [...i.choices] : [],
  );
}

/** What a choice shows: its words, formulas and pictures. */
export function choiceText(choice: Choice): string {
  const pictures: string[] = [];
  walk(choice.content, (node) => {
    if (node.kind === 'element' && node.name === 'img')
      pictures.push(`[${(node.attrs['src'] ?? '').split('/').pop()}]`);
  });
  return [canonicalText(choice.content), ...canonicalMath(choice.content), ...pictures].join(' ').trim();
}

function pairChoices(left: readonly Choice[], right: readonly Choice[]): [string, string][] {
  const pairs: [string, string][] = [];
  let restLeft = [...left];
  let restRight = [...right];
  const take = (matches: (a: Choice, b: Choice) => boolean): void => {
    for (const a of [...restLeft]) {
      const b = restRight.find((c) => matches(a, c));
      if (!b) continue;
      pairs.push([a.id, b.id]);
      restLeft = restLeft.filter((c) => c !== a);
      restRight = restRight.filter((c) => c !== b);
    }
  };
  take((a, b) => a.id === b.id && choiceText(a) === choiceText(b));
  take((a, b) => choiceText(a) === choiceText(b));
  take((a, b) => a.id === b.id);
  restLeft.forEach((a, at) => {
    const b = restRight[at];
    if (b && restLeft.length === restRight.length) pairs.push([a.id, b.id]);
  });
  return pairs;
}
