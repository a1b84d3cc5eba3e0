import equal from 'fast-deep-equal';
import { canonicalMath, canonicalText } from '../match/canonical.ts';
import type { ContentNode, Interaction } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { choicesOf, interactionsOf, optionSets, plain, walk, type Option } from '../model/visit.ts';
import { joinRows } from '../scoring/rows.ts';
import { compareScores } from './score.ts';
import { optionShown, translate } from './translate.ts';
import type { Difference, Facet } from './types.ts';

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
  const out: Difference[] = [];
  const add = (facet: Facet, from: string, to: string): void => {
    if (from !== to) out.push({ facet, from, to, example: null });
  };
  if (source.title !== '') add('title', source.title, arrived.title);
  const kinds = [kindOf(source), kindOf(arrived)] as const;
  add('kind', kinds[0], kinds[1]);
  add('wording', wordingOf(source), wordingOf(arrived));
  add('mathematics', allMath(source), allMath(arrived));
  if (kinds[0] === kinds[1]) out.push(...compareChoices(source, arrived));
  out.push(...compareScores(source, arrived));
  add('feedback', feedbackTexts(source), feedbackTexts(arrived));
  add('category', source.category ?? '', arrived.category ?? '');
  return [...out, ...fileDifference];
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
function kindOf(item: Item): string {
  return interactionsOf(item)
    .map((i) => {
      if (i.kind === 'custom') return i.name;
      if (i.kind !== 'choice' && i.kind !== 'hotspot' && i.kind !== 'hottext') return i.kind;
      const single = item.responses.find((r) => r.id === i.responseId)?.cardinality !== 'multiple';
      return `${i.kind} (${single ? 'one answer' : 'several answers'})`;
    })
    .join(', ');
}

const allMath = (item: Item): string => {
  const choices = choicesOf(item).flatMap((c) => canonicalMath(c.content));
  const inChoices = new Set(choices);
  return [...canonicalMath(item.body).filter((m) => !inChoices.has(m)), ...choices].join('; ');
};

/** Interactions in which the order of what is shown matters to nobody who answers by name. */
const UNORDERED: ReadonlySet<Interaction['kind']> = new Set([
  'hotspot',
  'graphicOrder',
  'graphicAssociate',
  'hottext',
]);

function compareChoices(source: Item, arrived: Item): Difference[] {
  const out: Difference[] = [];
  const { choices } = translate(source, arrived);
  const right = interactionsOf(arrived);
  const said = (texts: readonly string[]): string => texts.join(' / ');
  interactionsOf(source).forEach((a, at) => {
    const b = right[at];
    if (!b) return;
    const [from, to] = [optionSets(a), optionSets(b)];
    from.forEach((left, set) => {
      const there = to[set] ?? [];
      const [x, y] = [left.map(optionShown), there.map(optionShown)];
      if (said([...x].sort()) !== said([...y].sort())) {
        out.push({ facet: 'choices', from: said(x), to: said(y), example: null });
        return;
      }
      if (UNORDERED.has(a.kind)) return;
      const wanted = left.map((c) => choices.get(c.id)).filter((id) => id !== undefined);
      const found = there.map((c) => c.id).filter((id) => wanted.includes(id));
      if (wanted.join('\u0000') !== found.join('\u0000'))
        out.push({ facet: 'choice-order', from: said(x), to: said(y), example: null });
    });
    const pins = (options: readonly Option[], rename: (id: string) => string): string[] =>
      options
        .filter((c) => c.fixed)
        .map((c) => rename(c.id))
        .sort();
    const shuffleFrom = shuffleText(
      a,
      pins(from.flat(), (id) => choices.get(id) ?? id),
    );
    const shuffleTo = shuffleText(
      b,
      pins(to.flat(), (id) => id),
    );
    if (shuffleFrom !== shuffleTo)
      out.push({ facet: 'shuffle', from: shuffleFrom, to: shuffleTo, example: null });
    const [areasFrom, areasTo] = [areasOf(a), areasOf(b)];
    if (areasFrom !== areasTo) out.push({ facet: 'choices', from: areasFrom, to: areasTo, example: null });
  });
  return merge(out);
}

const shuffleText = (i: Interaction, pins: readonly string[]): string =>
  'shuffle' in i && i.shuffle ? `shuffled${pinsText(pins)}` : 'in order';

/** Where the areas of a picture lie; a slider's ends. */
function areasOf(i: Interaction): string {
  if ('hotspots' in i)
    return i.hotspots
      .map((h) => `${h.shape} ${h.coords}`)
      .sort()
      .join('; ');
  if (i.kind === 'slider') return `${i.lowerBound} to ${i.upperBound}, step ${i.step ?? 1}`;
  return '';
}

/** One difference a facet: of several interactions, both sides side by side. */
function merge(list: readonly Difference[]): Difference[] {
  const merged = new Map<Facet, Difference>();
  for (const d of list) {
    const had = merged.get(d.facet);
    merged.set(d.facet, had ? { ...had, from: `${had.from}; ${d.from}`, to: `${had.to}; ${d.to}` } : d);
  }
  return [...merged.values()];
}

const pinsText = (ids: readonly string[]): string => (ids.length > 0 ? `, pinned: ${ids.join(', ')}` : '');

/** Feedback in the body and beside it, as a sorted list of what is said. */
function feedbackTexts(item: Item): string {
  const texts = item.feedback.map((f) => canonicalText(f.content));
  walk(item.body, (node) => {
    if (node.kind === 'feedback') texts.push(canonicalText(node.children));
  });
  return texts
    .filter((t) => t !== '')
    .sort()
    .join('\n');
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
  if (left.join() !== right.join()) {
    return [{ facet: 'files', from: fileNames(source), to: fileNames(arrived), example: null }];
  }
  const from = alternatives(source.body);
  const to = alternatives(arrived.body);
  return from === to ? [] : [{ facet: 'files', from, to, example: null }];
}

const fileNames = (item: Item): string =>
  item.files.map((f) => (f.present ? f.path : `${f.path} (missing)`)).join(', ') || 'none';

function alternatives(nodes: readonly ContentNode[]): string {
  const found: string[] = [];
  walk(nodes, (node) => {
    if (node.kind === 'element' && node.name === 'img') found.push(plain([node], { alternatives: true }));
  });
  return found.join('; ');
}
