import type { Choice, Hotspot, Interaction } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import type { ResponseDeclaration, Scalar } from '../model/scoring.ts';
import { interactionFor, optionSets } from '../model/options.ts';
import { own } from '../model/own.ts';
import { spend } from './budget.ts';
import type { Answers } from './evaluate.ts';

/**
 * Which answers a candidate can give at all (QTI 2.1 Information Model, "Interactions": maxChoices,
 * minChoices, maxAssociations, matchMax, matchGroup, step). Nothing at all can always be given.
 */
export function possibleAnswers(item: Pick<Item, 'body' | 'responses'>, answers: Answers): boolean {
  return item.responses.every((r) => {
    const values = own(answers, r.id) ?? [];
    return values.length === 0 || possibleValue(interactionFor(item, r.id), r, values);
  });
}

/** Whether one response can have these values. */
export function possibleValue(
  interaction: Interaction | null,
  response: ResponseDeclaration,
  values: readonly Scalar[],
): boolean {
  if (values.length === 0) return true;
  if (response.cardinality === 'single' && values.length > 1) return false;
  if (response.baseType === 'integer' && values.some((v) => typeof v === 'number' && !Number.isInteger(v)))
    return false;
  if (!interaction) return true;
  switch (interaction.kind) {
    case 'choice':
    case 'hotspot':
    case 'hottext':
      return distinct(values) && within(values.length, interaction.minChoices, interaction.maxChoices);
    case 'order':
    case 'graphicOrder': {
      // Without a least number all of them are put in order ("orderInteraction", minChoices).
      const all = optionSets(interaction)[0]!.length;
      const { minChoices, maxChoices } = interaction;
      return (
        distinct(values) &&
        (minChoices > 0 ? within(values.length, minChoices, maxChoices) : values.length === all)
      );
    }
    case 'selectPoint':
    case 'positionObject':
      return within(values.length, interaction.minChoices, interaction.maxChoices);
    case 'slider':
      return values.every((v) => typeof v !== 'number' || onScale(v, interaction));
    case 'match':
      return (
        interaction.rows !== null ||
        (associated(values, interaction) && pairsFit(values, interaction.left, interaction.right))
      );
    case 'associate':
    case 'graphicAssociate': {
      const all = interaction.kind === 'associate' ? interaction.choices : interaction.hotspots;
      return associated(values, interaction) && pairsFit(values, all, null);
    }
    case 'gapMatch': {
      const gaps = optionSets(interaction)[1]!.map((g) => ({ id: g.id, matchMax: 1 }));
      return distinct(values) && pairsFit(values, interaction.choices, gaps);
    }
    case 'graphicGapMatch':
      return distinct(values) && pairsFit(values, interaction.choices, interaction.hotspots);
    default:
      return true;
  }
}

const distinct = (values: readonly Scalar[]): boolean => new Set(values).size === values.length;

/** 0 is any number. */
const within = (count: number, least: number, most: number): boolean =>
  count >= least && (most === 0 || count <= most);

const onScale = (
  value: number,
  { lowerBound, upperBound, step }: { lowerBound: number; upperBound: number; step: number | null },
): boolean => {
  if (value < lowerBound || value > upperBound) return false;
  if (step === null || step <= 0) return true;
  const steps = (value - lowerBound) / step;
  return Math.abs(steps - Math.round(steps)) < 1e-9;
};

const associated = (
  values: readonly Scalar[],
  { minAssociations, maxAssociations }: { minAssociations: number; maxAssociations: number },
): boolean =>
  new Set(values.map((v) => String(v).split(' ').sort().join(' '))).size === values.length &&
  within(values.length, minAssociations, maxAssociations);

type End = Pick<Choice | Hotspot, 'id' | 'matchMax' | 'groups'>;

/** Whether no end is used more often than it may be, and ends are paired within their groups. */
function pairsFit(values: readonly Scalar[], left: readonly End[], right: readonly End[] | null): boolean {
  spend((values.length * (left.length + (right?.length ?? 0))) >> 5);
  const used = new Map<End, number>();
  return values.every((value) => {
    const [a, b] = String(value).split(' ');
    const from = left.find((e) => e.id === a);
    const to = (right ?? left).find((e) => e.id === b);
    if (!from || !to || from === to) return false;
    if (!shareGroup(from, to)) return false;
    return [from, to].every((end) => {
      const times = (used.get(end) ?? 0) + 1;
      used.set(end, times);
      return !end.matchMax || times <= end.matchMax;
    });
  });
}

/** An end without groups can be paired with any. */
const shareGroup = ({ groups: a = [] }: End, { groups: b = [] }: End): boolean =>
  a.length === 0 || b.length === 0 || a.some((g) => b.includes(g));
