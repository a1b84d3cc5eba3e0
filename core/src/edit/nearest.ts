import type { Choice, ContentNode, Hotspot, Interaction, Picture } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { element, picture, text } from '../model/make.ts';
import { optionSets } from '../model/options.ts';
import { plainNumber } from '../model/number.ts';
import { mapLists } from '../model/visit.ts';
import { areaProbes } from '../scoring/geometry.ts';
import type { Answers } from '../scoring/evaluate.ts';
import { recognise } from '../scoring/recognise.ts';
import { retyped } from './keys.ts';
import type { Instead } from './nearestKinds.ts';
import { matchOf } from './nearestMatch.ts';
import { typedOrderOf } from './nearestOrder.ts';

const alone = (...here: readonly ContentNode[]): Instead => ({ here, after: [] });

/** Whatever was pressed or played: nothing of it can be given any more. */
const never = (): Answers[string] => [];

/** What takes the place of an interaction of an item; null where nothing can. */
export function insteadOf(item: Item, node: Interaction): Instead | null {
  switch (node.kind) {
    case 'inlineChoice':
      return {
        here: [text('____')],
        after: [choiceOf(node.responseId, node.choices, 1, node.shuffle)],
      };
    case 'hottext': {
      const [options = []] = optionSets(node);
      const choices = options.map((o) => ({ id: o.id, content: o.content, fixed: false }));
      return {
        here: [...node.prompt, ...unmarked(node.content)],
        after: [choiceOf(node.responseId, choices, node.maxChoices, false)],
      };
    }
    case 'hotspot':
      return alone(
        ...node.prompt,
        picture(node.picture),
        choiceOf(node.responseId, spots(node.hotspots, node.picture), node.maxChoices, false),
      );
    case 'graphicOrder':
      return alone(...node.prompt, picture(node.picture), {
        kind: 'order',
        responseId: node.responseId,
        prompt: [],
        shuffle: false,
        maxChoices: node.maxChoices,
        minChoices: node.minChoices,
        choices: spots(node.hotspots, node.picture),
      });
    case 'graphicAssociate':
      return alone(...node.prompt, picture(node.picture), {
        kind: 'associate',
        responseId: node.responseId,
        prompt: [],
        shuffle: false,
        maxAssociations: node.maxAssociations,
        minAssociations: node.minAssociations,
        choices: spots(node.hotspots, node.picture),
      });
    case 'graphicGapMatch':
      return alone({
        kind: 'gapMatch',
        responseId: node.responseId,
        prompt: node.prompt,
        shuffle: false,
        choices: node.choices,
        content: [
          picture(node.picture),
          ...spots(node.hotspots, node.picture).map((spot) =>
            element('p', [
              ...spot.content,
              text(': '),
              { kind: 'gap', id: spot.id, groups: spot.groups ?? [] },
            ]),
          ),
        ],
      });
    case 'slider':
      return alone(
        ...node.prompt,
        element('p', [
          { kind: 'textEntry', responseId: node.responseId, expectedLength: 8, placeholder: null },
        ]),
      );
    case 'upload':
    case 'drawing':
      return writtenOf(node);
    case 'media':
      return { ...alone(...node.prompt, ...node.media), forward: never };
    case 'endAttempt':
      return { ...alone(), forward: never };
    case 'order':
      return typedOrderOf(item, node);
    case 'associate':
      return matchOf(item, node);
    default:
      return null;
  }
}

/** Something handed in, as something written: a person marks both. */
function writtenOf(node: Extract<Interaction, { kind: 'upload' | 'drawing' }>): Instead {
  const { responseId, prompt } = node;
  return {
    here: [
      ...(node.kind === 'drawing' ? [picture(node.picture)] : []),
      { kind: 'extendedText', responseId, prompt, expectedLines: null, expectedLength: null },
    ],
    after: [],
    scored: (asked, before) =>
      recognise(before).shape.kind === 'manual'
        ? retyped(asked, responseId, { cardinality: 'single', baseType: 'string' })
        : null,
    forward: (values) => values.map(String),
  };
}

const choiceOf = (
  responseId: string,
  choices: readonly Choice[],
  maxChoices: number,
  shuffle: boolean,
): ContentNode => ({ kind: 'choice', responseId, prompt: [], shuffle, maxChoices, minChoices: 0, choices });

/** Words that could be picked, as words. */
const unmarked = (nodes: readonly ContentNode[]): ContentNode[] =>
  nodes.flatMap((n) => (n.kind === 'hottextChoice' ? [...n.content] : [mapLists(n, unmarked)]));

/** Areas of a picture as choices, by their labels; those that have none, or one with another, by where they lie. */
function spots(areas: readonly Hotspot[], of: Picture): Choice[] {
  return areas.map((area): Choice => {
    const label = area.label.trim();
    const own = label !== '' && areas.filter((a) => a.label.trim() === label).length === 1;
    const lies = own ? '' : whereIn(area, of);
    const { matchMax, matchMin, groups } = area;
    return {
      id: area.id,
      content: [text([label, lies].filter((t) => t !== '').join(' ') || area.id)],
      fixed: area.fixed ?? false,
      ...(matchMax === undefined ? {} : { matchMax }),
      ...(matchMin === undefined ? {} : { matchMin }),
      ...(groups === undefined ? {} : { groups }),
    };
  });
}

/** In words of no language: so far to the right, so far down. */
function whereIn({ shape, coords }: Hotspot, { width, height }: Picture): string {
  const [middle] = areaProbes(shape, coords, { width, height }).inside;
  if (!middle) return '';
  const share = (n: number, of: number | null): string =>
    of !== null && of > 0 ? `${plainNumber(Math.round((100 * n) / of))} %` : plainNumber(Math.round(n));
  return `→ ${share(middle[0], width)}, ↓ ${share(middle[1], height)}`;
}
