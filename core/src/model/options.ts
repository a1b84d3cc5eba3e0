import type { Choice, ContentNode, Hotspot, Interaction, Picture } from './content.ts';
import type { Item } from './holding.ts';
import { interactionsOf, walk } from './visit.ts';

/**
 * Something of an interaction that a response names by identifier: a choice, a hotspot, a gap, a run of text.
 */
export interface Option {
  readonly id: string;
  readonly content: readonly ContentNode[];
  /** Said of a thing that has no content: a hotspot's label. */
  readonly label: string;
  readonly fixed: boolean;
  /** Where it lies in a picture. */
  readonly place?: string;
}

/** An area of a picture in one spelling. */
export const areaText = ({ shape, coords }: Pick<Hotspot, 'shape' | 'coords'>): string =>
  `${shape} ${coords
    .trim()
    .split(/[\s,]+/u)
    .map((n) => String(Number(n)))
    .join(',')}`;

const optionOf = (c: Choice): Option => ({ id: c.id, content: c.content, label: '', fixed: c.fixed });
const spotOption = (h: Hotspot): Option => ({
  id: h.id,
  content: [],
  label: h.label,
  fixed: h.fixed ?? false,
  place: areaText(h),
});

/** What can be picked on each side: one list, or sources and targets for those that pair. */
export function optionSets(interaction: Interaction): readonly (readonly Option[])[] {
  switch (interaction.kind) {
    case 'choice':
    case 'order':
    case 'associate':
    case 'inlineChoice':
      return [interaction.choices.map(optionOf)];
    case 'match':
      return [interaction.left.map(optionOf), interaction.right.map(optionOf)];
    case 'gapMatch': {
      const gaps: Option[] = [];
      walk(interaction.content, (node) => {
        if (node.kind === 'gap')
          gaps.push({ id: node.id, content: [], label: `gap ${gaps.length + 1}`, fixed: false });
      });
      return [interaction.choices.map(optionOf), gaps];
    }
    case 'hottext': {
      const found: Option[] = [];
      walk(interaction.content, (node) => {
        if (node.kind === 'hottextChoice')
          found.push({ id: node.id, content: node.content, label: '', fixed: false });
      });
      return [found];
    }
    case 'hotspot':
    case 'graphicOrder':
    case 'graphicAssociate':
      return [interaction.hotspots.map(spotOption)];
    case 'graphicGapMatch':
      return [interaction.choices.map(optionOf), interaction.hotspots.map(spotOption)];
    default:
      return [];
  }
}

/** All that can be picked in an item, in document order. */
export function choicesOf(item: Pick<Item, 'body'>): readonly Option[] {
  const interactions = interactionsOf(item);
  if (offered.of !== interactions)
    offered = { of: interactions, all: interactions.flatMap((i) => optionSets(i).flat()) };
  return offered.all;
}

/** Of the last item asked about. */
let offered: { readonly of: readonly Interaction[]; readonly all: readonly Option[] } = { of: [], all: [] };

/** The response identifiers an interaction fills. */
export function responseIdsOf(interaction: Interaction): readonly string[] {
  if (interaction.kind === 'match' && interaction.rows) return Object.values(interaction.rows);
  return interaction.responseId === null ? [] : [interaction.responseId];
}

/** The interaction that fills a response. */
export function interactionFor(item: Pick<Item, 'body'>, responseId: string): Interaction | null {
  const interactions = interactionsOf(item);
  if (interactions.length <= FEW)
    return interactions.find((i) => responseIdsOf(i).includes(responseId)) ?? null;
  if (index.of !== interactions) {
    const by = new Map(
      [...interactions].reverse().flatMap((i) => responseIdsOf(i).map((id) => [id, i] as const)),
    );
    index = { of: interactions, by };
  }
  return index.by.get(responseId) ?? null;
}

/** Of more than a few there is an index, that of the last item asked about. */
const FEW = 8;
let index: { of: readonly Interaction[]; by: ReadonlyMap<string, Interaction> } = { of: [], by: new Map() };

/** Pictures that interactions stand on. */
export function picturesOf(interaction: Interaction): Picture[] {
  if (interaction.kind === 'positionObject') return [interaction.stage, interaction.picture];
  return 'picture' in interaction ? [interaction.picture] : [];
}
