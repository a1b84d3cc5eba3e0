import type {
  ChoicesSaid,
  CriteriaSaid,
  DrawSaid,
  Facet,
  FilesSaid,
  LevelSaid,
  LevelsSaid,
  MembershipSaid,
  PointsSaid,
  Quoted,
  SaidOf,
  ShuffleSaid,
} from '../compare/said.ts';
import type { Comparison, ContainerReport, Difference, Example, PairReport } from '../compare/types.ts';
import { pointsText } from '../model/levelText.ts';
import { plainNumber } from '../model/number.ts';
import { describeScoring } from './scoring.ts';

/** Both sides of a difference in words; empty where there is nothing. */
export interface DifferenceInWords {
  readonly facet: Facet;
  readonly from: string;
  readonly to: string;
  readonly example: Example | null;
}

type InWords<T extends { readonly differences: readonly Difference[] }> = Omit<T, 'differences'> & {
  readonly differences: readonly DifferenceInWords[];
};
export type PairInWords = InWords<PairReport>;
export type ContainerInWords = InWords<ContainerReport>;

/** What `alforja compare --json` prints: a comparison whose differences are in words. */
type ComparisonInWords = Omit<Comparison, 'pairs' | 'containers'> & {
  readonly pairs: readonly PairInWords[];
  readonly containers: readonly ContainerInWords[];
};

export const inWords = <T extends { readonly differences: readonly Difference[] }>(of: T): InWords<T> => ({
  ...of,
  differences: of.differences.map(sayDifference),
});

export const comparisonInWords = (comparison: Comparison): ComparisonInWords => ({
  ...comparison,
  pairs: comparison.pairs.map(inWords),
  containers: comparison.containers.map(inWords),
});

export const sayDifference = (d: Difference): DifferenceInWords => ({
  facet: d.facet,
  from: saySide(d.facet, d.from),
  to: saySide(d.facet, d.to),
  example: d.example,
});

function saySide<F extends Facet>(facet: F, said: SaidOf[F] | Quoted): string {
  return isQuoted(said) ? said.words : SAY[facet](said);
}

/** What an older record said in words alone stays in these words. */
const isQuoted = (said: unknown): said is Quoted =>
  typeof said === 'object' && said !== null && Object.hasOwn(said, 'words');

const same = (text: string): string => text;
const each =
  <T>(say: (one: T) => string, between: string) =>
  (list: readonly T[]): string =>
    list.map(say).join(between);
const notSet =
  <T>(say: (value: T) => string) =>
  (value: T | null): string =>
    value === null ? 'not set' : say(value);

const SAY: { readonly [F in Facet]: (said: SaidOf[F]) => string } = {
  title: same,
  category: same,
  wording: same,
  instructions: same,
  mathematics: each(same, '; '),
  kind: each(
    ({ kind, single }) => (single === null ? kind : `${kind} (${single ? 'one answer' : 'several answers'})`),
    ', ',
  ),
  choices: each(sayChoices, '; '),
  'choice-order': each(each(same, ' / '), '; '),
  shuffle: sayShuffles,
  key: (key) => key.join('; ') || 'no key',
  points: sayPoints,
  scoring: describeScoring,
  tolerance: describeScoring,
  'case-sensitivity': describeScoring,
  feedback: each(same, '\n'),
  files: sayFiles,
  attempts: notSet((value) => (typeof value === 'number' ? plainNumber(value) : value)),
  'time-limit': notSet((minutes) => `${plainNumber(minutes)} minutes`),
  'pass-mark': notSet(plainNumber),
  dates: ({ opens, closes }) => `${opens ?? 'not set'} to ${closes ?? 'not set'}`,
  sections: each(same, ' / '),
  draw: each(sayDraw, '; '),
  membership: sayMembership,
  criteria: sayCriteria,
  levels: each(sayLevels, '\n'),
};

function sayChoices(said: ChoicesSaid): string {
  if ('texts' in said) return said.texts.join(' / ');
  if ('areas' in said) return said.areas.join('; ');
  return `${said.low} to ${said.high}, step ${said.step}`;
}

function sayShuffles(list: readonly ShuffleSaid[]): string {
  const between = list.some((s) => s.of === 'section') ? ' / ' : '; ';
  return list
    .map((said) => {
      if (said.of === 'section') return said.shuffled ? 'random order' : 'fixed order';
      if (!said.shuffled) return 'in order';
      return `shuffled${said.pinned.length > 0 ? `, pinned: ${said.pinned.join(', ')}` : ''}`;
    })
    .join(between);
}

function sayPoints({ points, percentage }: PointsSaid): string {
  if (points === null) return 'not scored';
  return `${plainNumber(points)}${percentage ? ', by percentage' : ''}`;
}

function sayFiles(said: FilesSaid): string {
  if ('alternatives' in said) return said.alternatives.join('; ');
  if ('companions' in said) return said.companions.join('; ') || 'none';
  return (
    said.files
      .map((f) => (!f.present ? `${f.path} (missing)` : f.changed ? `${f.path} (other content)` : f.path))
      .join(', ') || 'none'
  );
}

function sayDraw({ pick, of, pointsEach, withReplacement }: DrawSaid): string {
  const points = pointsEach === null ? '?' : plainNumber(pointsEach);
  return `${pick} of ${of}, ${points} points each${withReplacement ? ', with repeats' : ''}`;
}

function sayMembership(said: MembershipSaid): string {
  if ('order' in said) return `order: ${said.order.join(', ')}`;
  if ('placed' in said)
    return said.placed.map(({ item, section }) => `${item} in ${section || 'no section'}`).join(', ');
  if ('worth' in said)
    return said.worth.map(({ item, points }) => `${item} for ${plainNumber(points)} points`).join(', ');
  const only = said.only.length > 0 ? `, only here: ${said.only.join(', ')}` : '';
  return `${said.items} items${only}`;
}

function sayCriteria(said: CriteriaSaid): string {
  if ('freeComments' in said) return said.freeComments ? 'with free comments' : 'without free comments';
  return said.criteria
    .map(({ title, description, weight }) =>
      [title, description, weight === null || weight === 1 ? '' : `weight ${plainNumber(weight)}`]
        .filter((t) => t !== '')
        .join(', '),
    )
    .join('; ');
}

const sayLevel = ({ title, points, description, feedback }: LevelSaid): string =>
  [title, pointsText(points), description, feedback].filter((t) => t !== '').join(', ') || 'nothing';

function sayLevels({ criterion, levels }: LevelsSaid): string {
  return `${criterion}: ${levels.map(sayLevel).join(' / ')}`;
}
