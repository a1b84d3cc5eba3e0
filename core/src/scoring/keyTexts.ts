import type { Item } from '../model/holding.ts';
import type { Interaction } from '../model/content.ts';
import type { Scalar } from '../model/scoring.ts';
import { plainNumber } from '../model/number.ts';
import { interactionsOf } from '../model/visit.ts';
import { interactionFor, optionSets, responseIdsOf } from '../model/options.ts';
import { optionText } from '../model/plainText.ts';
import { shapeIn, type Recognised } from './recognise.ts';
import type { ScoringShape } from './shapes.ts';
import { own, put } from '../model/own.ts';

/** The key as text, one entry a right thing, in the order people read it in. */
export function keyTexts(item: Item, recognised: Recognised): string[] {
  if (recognised.shape.kind === 'manual') return [];
  const done = new Set<Interaction>();
  const out: string[] = [];
  for (const response of item.responses) {
    const interaction = interactionFor(item, response.id);
    if (interaction?.kind === 'match' && interaction.rows) {
      if (!done.has(interaction)) out.push(...rowTexts(interaction, recognised.key));
      done.add(interaction);
      continue;
    }
    const values = own(recognised.key, response.id) ?? [];
    const shape = own(recognised.numbers, response.id) ?? shapeIn(recognised.shape, response.id);
    if (shape?.kind === 'numeric') out.push(numericText(shape));
    else if (shape?.kind === 'pattern' && shape.patterns.length + shape.substrings.length > 0)
      out.push(...[...shape.patterns, ...shape.substrings].map((p) => `/${p}/`));
    else out.push(...valueTexts(interaction, values));
  }
  return out;
}

/** Values of a response in words: what is picked, "left -> right", "A - B", numbers and text as they are. */
function valueTexts(interaction: Interaction | null, values: readonly Scalar[]): string[] {
  const sets = interaction ? optionSets(interaction) : [];
  const [first = [], second] = sets;
  const places = new Map(
    sets.map((options) => [options, new Map(options.map((o, at) => [o.id, at] as const).reverse())]),
  );
  const place = (options: typeof first, id: string): number => places.get(options)?.get(id) ?? -1;
  const named = (options: typeof first, id: string): string => {
    const found = options[place(options, id)];
    return found ? optionText(found) : id;
  };
  const ends = (v: Scalar): [string, string] => {
    const [a = '', b = ''] = String(v).split(' ');
    return [a, b];
  };
  switch (interaction?.kind) {
    case 'choice':
    case 'inlineChoice':
    case 'hottext':
    case 'hotspot': {
      const given = new Set(values);
      const picked = first.filter((o) => given.has(o.id));
      return picked.length > 0 ? picked.map(optionText) : values.map(String);
    }
    case 'order':
    case 'graphicOrder':
      return values.map((v) => named(first, String(v)));
    case 'associate':
    case 'graphicAssociate':
      return values
        .map((v) => {
          const pair = ends(v).sort((a, b) => place(first, a) - place(first, b));
          return { at: place(first, pair[0]!), text: pair.map((id) => named(first, id)).join(' - ') };
        })
        .sort((a, b) => a.at - b.at)
        .map((p) => p.text);
    case 'match':
    case 'gapMatch':
    case 'graphicGapMatch': {
      const byTarget = interaction.kind !== 'match';
      return values
        .map((v) => {
          const [a, b] = ends(v);
          return {
            at: byTarget ? place(second ?? [], b) : place(first, a),
            text: `${named(first, a)} -> ${named(second ?? [], b)}`,
          };
        })
        .sort((a, b) => a.at - b.at)
        .map((p) => p.text);
    }
    default:
      return values.map((v) => (typeof v === 'number' ? plainNumber(v) : String(v)));
  }
}

/** A match whose rows are responses of their own. */
function rowTexts(match: Extract<Interaction, { kind: 'match' }>, key: Recognised['key']): string[] {
  const [left = [], right = []] = optionSets(match);
  return left.flatMap((row) =>
    (own(key, (match.rows && own(match.rows, row.id)) ?? '') ?? []).map((v) => {
      const target = right.find((o) => o.id === v);
      return `${optionText(row)} -> ${target ? optionText(target) : String(v)}`;
    }),
  );
}

/** The value the source names, else the range. */
function numericText(shape: Extract<ScoringShape, { kind: 'numeric' }>): string {
  if (!shape.tolerance || shape.stated) return plainNumber(shape.value);
  return `${plainNumber(shape.tolerance.low)}..${plainNumber(shape.tolerance.high)}`;
}

/** An answer in words, interaction by interaction. */
export function answerTexts(
  item: Pick<Item, 'body'>,
  answers: Readonly<Record<string, readonly Scalar[]>>,
): string[] {
  return interactionsOf(item).flatMap((interaction) => {
    if (interaction.kind === 'match' && interaction.rows) {
      return rowTexts(interaction, answers);
    }
    return responseIdsOf(interaction).flatMap((id) => valueTexts(interaction, own(answers, id) ?? []));
  });
}

/** What people read where a rule names a choice by its identifier, for the shapes that do. */
export function shapeNames(item: Item, shape: ScoringShape): Record<string, string> {
  const names: Record<string, string> = {};
  if (shape.kind === 'sum-of-parts')
    for (const part of shape.parts) Object.assign(names, shapeNames(item, part.shape));
  if (shape.kind === 'per-choice')
    for (const id of Object.keys(shape.values)) {
      const texts = item.responses.map((r) => valueTexts(interactionFor(item, r.id), [id])[0]);
      const text = texts.find((t) => t !== undefined && t !== id);
      if (text !== undefined) put(names, id, text);
    }
  return names;
}
