import equal from 'fast-deep-equal';
import { canonicalMath, canonicalText } from '../match/canonical.ts';
import type { ContentNode } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { interactionsOf, plain, walk } from '../model/visit.ts';
import { compareScores } from './score.ts';
import { choicesFor, choiceText, translate } from './translate.ts';
import type { Difference, Facet } from './types.ts';

/** Content of a file by its package path: its sha256, or null when it is not there. */
export type FileContent = (path: string) => string | null;

/** Everything that matters and differs between two items, one entry a facet. */
export function compareItems(
  source: Item,
  arrived: Item,
  sourceFiles: FileContent,
  arrivedFiles: FileContent,
): Difference[] {
  const fileDifference = compareFiles(source, arrived, sourceFiles, arrivedFiles);
  if (same(source, arrived)) return fileDifference;
  const out: Difference[] = [];
  const add = (facet: Facet, from: string, to: string): void => {
    if (from !== to) out.push({ facet, from, to, example: null });
  };
  if (source.title !== '') add('title', source.title, arrived.title);
  const kinds = [kindOf(source), kindOf(arrived)] as const;
  add('kind', kinds[0], kinds[1]);
  add('wording', canonicalText(source.body), canonicalText(arrived.body));
  add('mathematics', allMath(source), allMath(arrived));
  if (kinds[0] === kinds[1]) out.push(...compareChoices(source, arrived));
  out.push(...compareScores(source, arrived));
  add('feedback', feedbackTexts(source), feedbackTexts(arrived));
  add('category', source.category ?? '', arrived.category ?? '');
  return [...out, ...fileDifference];
}

const COMPARED = ['title', 'points', 'scale', 'category', 'body', 'responses', 'scoring', 'outcomes', 'feedback'] as const; // prettier-ignore

/** The same in every part that is compared: the common case, worth a short cut. */
const same = (a: Item, b: Item): boolean => COMPARED.every((part) => equal(a[part], b[part]));

function kindOf(item: Item): string {
  return interactionsOf(item)
    .map((i) => {
      if (i.kind === 'custom') return i.name;
      if (i.kind !== 'choice') return i.kind;
      const single = item.responses.find((r) => r.id === i.responseId)?.cardinality !== 'multiple';
      return single ? 'choice (one answer)' : 'choice (several answers)';
    })
    .join(', ');
}

const allMath = (item: Item): string => {
  const choices = interactionsOf(item).flatMap((i) =>
    i.kind === 'choice' ? i.choices.flatMap((c) => canonicalMath(c.content)) : [],
  );
  const inChoices = new Set(choices);
  return [...canonicalMath(item.body).filter((m) => !inChoices.has(m)), ...choices].join('; ');
};

function compareChoices(source: Item, arrived: Item): Difference[] {
  const out: Difference[] = [];
  const left = interactionsOf(source).filter((i) => i.kind === 'choice');
  const right = interactionsOf(arrived).filter((i) => i.kind === 'choice');
  const { choices } = translate(source, arrived);
  left.forEach((a, at) => {
    const b = right[at];
    if (!b) return;
    const from = choicesFor(source, a.responseId).map((c) => canonicalText(c.content));
    const to = choicesFor(arrived, b.responseId).map((c) => canonicalText(c.content));
    const said = (texts: readonly string[]): string => texts.join(' / ');
    if (said([...from].sort()) !== said([...to].sort()))
      out.push({ facet: 'choices', from: said(from), to: said(to), example: null });
    else {
      const wanted = a.choices.map((c) => choices.get(c.id)).filter((id) => id !== undefined);
      const found = b.choices.map((c) => c.id).filter((id) => wanted.includes(id));
      if (wanted.join('\u0000') !== found.join('\u0000'))
        out.push({
          facet: 'choice-order',
          from: said(a.choices.map(choiceText)),
          to: said(b.choices.map(choiceText)),
          example: null,
        });
    }
    const pins = a.choices
      .filter((c) => c.fixed)
      .map((c) => choices.get(c.id) ?? c.id)
      .sort();
    const pinned = b.choices
      .filter((c) => c.fixed)
      .map((c) => c.id)
      .sort();
    const shuffleFrom = a.shuffle ? `shuffled${pinsText(pins)}` : 'in order';
    const shuffleTo = b.shuffle ? `shuffled${pinsText(pinned)}` : 'in order';
    if (shuffleFrom !== shuffleTo)
      out.push({ facet: 'shuffle', from: shuffleFrom, to: shuffleTo, example: null });
  });
  return out;
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
