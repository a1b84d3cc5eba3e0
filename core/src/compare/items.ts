import equal from 'fast-deep-equal';
import { canonicalMath, canonicalText } from '../match/canonical.ts';
import type { ContentNode, Interaction } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { choicesOf, optionSets, type Option } from '../model/options.ts';
import { interactionsOf, walk } from '../model/visit.ts';
import { plain } from '../model/plainText.ts';
import { joinRows } from '../scoring/rows.ts';
import { difference, Differences } from './differences.ts';
import type { ChoicesSaid, FilesSaid, KindSaid, ShuffleSaid } from './said.ts';
import { compareScores } from './score.ts';
import { optionShown, translate } from './translate.ts';
import type { Difference } from './types.ts';

/** Content of a file by its package path: its sha256, or null when it is not there. */
export type FileContent = (path: string) => string | null;

/** Everything that matters and differs between two items, one entry a facet. */
export function compareItems(
  before: Item,
  after: Item,
  sourceFiles: FileContent,
  arrivedFiles: FileContent,
): Difference[] {
  // A match that is asked row by row and one that is asked in pairs are the same to who answers.
  const [source, arrived] = [joinRows(before), joinRows(after)];
  const fileDifference = compareFiles(source, arrived, sourceFiles, arrivedFiles);
  if (same(source, arrived)) return fileDifference;
  const out = new Differences();
  if (source.title !== '') out.add('title', source.title, arrived.title);
  const kinds = [kindsOf(source), kindsOf(arrived)] as const;
  out.add('kind', kinds[0], kinds[1]);
  out.add('wording', wordingOf(source), wordingOf(arrived));
  out.add('mathematics', allMath(source), allMath(arrived));
  if (equal(kinds[0], kinds[1])) out.list.push(...compareChoices(source, arrived));
  out.list.push(...compareScores(source, arrived));
  out.add('feedback', feedbackTexts(source), feedbackTexts(arrived));
  out.add('category', source.category ?? '', arrived.category ?? '');
  return [...out.list, ...fileDifference];
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
] as const;

const wordingOf = (item: Item): string =>
  canonicalText([...item.stimuli.flatMap((s) => s.content), ...item.body]);

/** The same in every part that is compared: the common case, worth a short cut. */
const same = (a: Item, b: Item): boolean => COMPARED.every((part) => equal(a[part], b[part]));

/** The kinds of an item's interactions; one answer and several are different kinds of the same. */
const kindsOf = (item: Item): KindSaid[] =>
  interactionsOf(item).map((i) => {
    if (i.kind === 'custom') return { kind: i.name, single: null };
    if (i.kind !== 'choice' && i.kind !== 'hotspot' && i.kind !== 'hottext')
      return { kind: i.kind, single: null };
    const response = item.responses.find((r) => r.id === i.responseId);
    return { kind: i.kind, single: response?.cardinality !== 'multiple' };
  });

const allMath = (item: Item): string[] => {
  const choices = choicesOf(item).flatMap((c) => canonicalMath(c.content));
  const inChoices = new Set(choices);
  return [...canonicalMath(item.body).filter((m) => !inChoices.has(m)), ...choices];
};

/** Interactions in which the order of what is shown matters to nobody who answers by name. */
const UNORDERED: ReadonlySet<Interaction['kind']> = new Set([
  'hotspot',
  'graphicOrder',
  'graphicAssociate',
  'hottext',
]);

/** One facet of the interactions of an item, those that differ side by side. */
class Sides<T> {
  readonly from: T[] = [];
  readonly to: T[] = [];
  add(from: readonly T[], to: readonly T[]): void {
    if (equal(from, to)) return;
    this.from.push(...from);
    this.to.push(...to);
  }
}

function compareChoices(source: Item, arrived: Item): Difference[] {
  const choices = new Sides<ChoicesSaid>();
  const order = new Sides<readonly string[]>();
  const shuffle = new Sides<ShuffleSaid>();
  const { choices: answering } = translate(source, arrived);
  const right = interactionsOf(arrived);
  interactionsOf(source).forEach((a, at) => {
    const b = right[at];
    if (!b) return;
    const [from, to] = [optionSets(a), optionSets(b)];
    from.forEach((left, set) => {
      const there = to[set] ?? [];
      const [x, y] = [left.map(optionShown), there.map(optionShown)];
      if (!equal([...x].sort(), [...y].sort())) {
        choices.add([{ texts: x }], [{ texts: y }]);
        return;
      }
      if (UNORDERED.has(a.kind)) return;
      const wanted = left.map((c) => answering.get(c.id)).filter((id) => id !== undefined);
      const found = there.map((c) => c.id).filter((id) => wanted.includes(id));
      if (!equal(wanted, found)) order.add([x], [y]);
    });
    const named = (id: string): string => answering.get(id) ?? id;
    shuffle.add([shuffleOf(a, from.flat(), named)], [shuffleOf(b, to.flat(), (id) => id)]);
    choices.add(areasOf(a), areasOf(b));
  });
  return [
    ...(choices.from.length + choices.to.length > 0 ? [difference('choices', choices.from, choices.to)] : []),
    ...(order.from.length > 0 ? [difference('choice-order', order.from, order.to)] : []),
    ...(shuffle.from.length > 0 ? [difference('shuffle', shuffle.from, shuffle.to)] : []),
  ];
}

/** Whether it is shuffled, and which choices keep their places then. */
const shuffleOf = (
  i: Interaction,
  options: readonly Option[],
  named: (id: string) => string,
): ShuffleSaid => {
  const shuffled = 'shuffle' in i && i.shuffle;
  const pinned = options.filter((c) => c.fixed).map((c) => named(c.id));
  return { of: 'choices', shuffled, pinned: shuffled ? pinned.sort() : [] };
};

/** Where the areas of a picture lie; a slider's ends. */
function areasOf(i: Interaction): ChoicesSaid[] {
  if ('hotspots' in i) return [{ areas: i.hotspots.map((h) => `${h.shape} ${h.coords}`).sort() }];
  if (i.kind === 'slider') return [{ low: i.lowerBound, high: i.upperBound, step: i.step ?? 1 }];
  return [];
}

/** Feedback in the body and beside it, as a sorted list of what is said. */
function feedbackTexts(item: Item): string[] {
  const texts = item.feedback.map((f) => canonicalText(f.content));
  walk(item.body, (node) => {
    if (node.kind === 'feedback') texts.push(canonicalText(node.children));
  });
  return texts.filter((t) => t !== '').sort();
}

function compareFiles(
  source: Item,
  arrived: Item,
  sourceFiles: FileContent,
  arrivedFiles: FileContent,
): Difference[] {
  if (source.files.length === 0 && arrived.files.length === 0) return [];
  const contents = (item: Item, files: FileContent): string[] =>
    item.files.map((f) => files(f.path) ?? 'missing').sort();
  const left = contents(source, sourceFiles);
  const right = contents(arrived, arrivedFiles);
  if (!equal(left, right)) return [difference('files', filesSaid(source), filesSaid(arrived))];
  const out = new Differences();
  out.add('files', alternatives(source.body), alternatives(arrived.body));
  return out.list;
}

const filesSaid = (item: Item): FilesSaid => ({
  files: item.files.map(({ path, present }) => ({ path, present })),
});

function alternatives(nodes: readonly ContentNode[]): FilesSaid {
  const found: string[] = [];
  walk(nodes, (node) => {
    if (node.kind === 'element' && node.name === 'img') found.push(plain([node], { alternatives: true }));
  });
  return { alternatives: found };
}
