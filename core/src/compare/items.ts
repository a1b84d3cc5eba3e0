import equal from 'fast-deep-equal';
import { canonicalMath, canonicalText } from '../match/canonical.ts';
import { canonicalXml } from '../match/canonicalXml.ts';
import type { Item } from '../model/holding.ts';
import { choicesOf } from '../model/options.ts';
import { interactionsOf } from '../model/visit.ts';
import { explore } from '../scoring/budget.ts';
import { joinRows } from '../scoring/rows.ts';
import { answersOf } from './answers.ts';
import { compareChoices } from './choices.ts';
import { Differences } from './differences.ts';
import { compareFeedback } from './feedback.ts';
import { compareFiles } from './files.ts';
import type { KindSaid } from './said.ts';
import { compareScores, unproven } from './score.ts';
import type { FileContent, Side } from './side.ts';
import type { Difference } from './types.ts';

/** Everything that matters and differs between two items, one entry a facet. */
export function compareItems(
  before: Item,
  after: Item,
  sourceFiles: FileContent,
  arrivedFiles: FileContent,
): Difference[] {
  // A match that is asked row by row and one that is asked in pairs are the same to who answers.
  const [source, arrived] = [joinRows(before), joinRows(after)];
  const left: Side = { item: source, files: sourceFiles };
  const right: Side = { item: arrived, files: arrivedFiles };
  const fileDifference = compareFiles(left, right);
  if (same(source, arrived)) return fileDifference;
  const out = new Differences();
  if (source.title !== '') out.add('title', source.title, arrived.title);
  const kinds = [kindsOf(source), kindsOf(arrived)] as const;
  out.add('kind', kinds[0], kinds[1]);
  out.add('wording', wordingOf(source), wordingOf(arrived));
  out.add('mathematics', allMath(source), allMath(arrived));
  const placesMoved = out.list.length === 0 && fileDifference.length === 0;
  if (placesMoved) out.add('wording', wordingOf(source, true), wordingOf(arrived, true));
  if (equal(kinds[0], kinds[1])) out.list.push(...compareChoices(left, right));
  const scores = (): Difference[] => {
    const answers = answersOf(left, right);
    return [...compareScores(answers), ...compareFeedback(answers)];
  };
  out.list.push(...explore(scores, () => unproven(source, arrived)));
  out.add('category', source.category ?? '', arrived.category ?? '');
  const companions = new Differences();
  companions.add('files', { companions: keptOf(source, true) }, { companions: keptOf(arrived, true) });
  return [...out.list, ...fileDifference, ...(fileDifference.length > 0 ? [] : companions.list)];
}

const COMPARED = [
  'title',
  'points',
  'scale',
  'category',
  'body',
  'stimuli',
  'templates',
  'templateRules',
  'responses',
  'scoring',
  'outcomes',
  'feedback',
  'adaptive',
  'kept',
] as const;

const COMPANIONS = 'companionMaterialsInfo';
const keptOf = (item: Item, companions: boolean): string[] =>
  item.kept.filter((k) => (k.name === COMPANIONS) === companions).map((k) => canonicalXml(k.xml));

/** What is read, and what else the item says in its own standard: catalogs of other wordings, for one. */
const wordingOf = (item: Item, places = false): string =>
  [
    canonicalText([...item.stimuli.flatMap((s) => s.content), ...item.body], places),
    ...keptOf(item, false),
  ].join('\n');

/** The same in every part that is compared: the common case, worth a short cut. */
const same = (a: Item, b: Item): boolean => COMPARED.every((part) => equal(a[part], b[part]));

/** The kinds of an item's interactions; one answer and several are different kinds of the same. */
const kindsOf = (item: Item): KindSaid[] => [
  ...(item.adaptive ? [{ kind: 'adaptive', single: null }] : []),
  ...interactionsOf(item).map((i) => {
    if (i.kind === 'custom') return { kind: i.name, single: null };
    if (i.kind !== 'choice' && i.kind !== 'hotspot' && i.kind !== 'hottext')
      return { kind: i.kind, single: null };
    const response = item.responses.find((r) => r.id === i.responseId);
    return { kind: i.kind, single: response?.cardinality !== 'multiple' };
  }),
];

const allMath = (item: Item): string[] => {
  const choices = choicesOf(item).flatMap((c) => canonicalMath(c.content));
  const inChoices = new Set(choices);
  return [...canonicalMath(item.body).filter((m) => !inChoices.has(m)), ...choices];
};
