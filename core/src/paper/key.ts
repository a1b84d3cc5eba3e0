import type { Holding, Item } from '../model/holding.ts';
import { letterOf } from '../model/letterOf.ts';
import { pointsText } from '../model/levelText.ts';
import { optionSets } from '../model/options.ts';
import { own } from '../model/own.ts';
import { nameOf } from '../model/plainText.ts';
import type { Criterion, Rubric } from '../model/rubric.ts';
import { interactionsOf, walk } from '../model/visit.ts';
import { describeShape } from '../report/scoring.ts';
import { keyTexts } from '../scoring/keyTexts.ts';
import { recognise } from '../scoring/recognise.ts';
import { blocksOf } from './blocks.ts';
import { formOf } from './forms.ts';
import { NO_HEAD, type Settled } from './paper.ts';
import type { Block, Cell, Head, KeyEntry, PaperKey } from './types.ts';

/** The key of a version and its marking guide: answers by letter, rules, solutions, rubrics of essays. */
export function keyOf(
  version: Settled,
  title: string,
  rubrics: Holding['rubrics'],
  head: Head = NO_HEAD,
): PaperKey {
  const byId = new Map(version.items.map((i) => [i.id, i]));
  let number = 0;
  const entries = version.quiz.sections.flatMap((s) =>
    s.items.flatMap(({ item: id }): KeyEntry[] => {
      const item = byId.get(id);
      return item
        ? [
            entry(
              item,
              ++number,
              rubrics.filter((r) => r.attachedTo.includes(id)),
            ),
          ]
        : [];
    }),
  );
  return {
    title,
    version: version.name,
    head,
    points: version.points,
    language: version.items.find((i) => i.language !== null)?.language ?? null,
    entries,
  };
}

function entry(item: Item, number: number, rubrics: readonly Rubric[]): KeyEntry {
  const recognised = recognise(item);
  const texts = keyTexts(item, recognised);
  return {
    number,
    id: item.id,
    title: nameOf(item),
    points: item.points,
    answers: lettersFirst(item, recognised.key, texts),
    rule: describeShape(item, recognised.shape),
    guide: [...notesOf(item), ...rubrics.flatMap(rubricBlocks)],
  };
}

/** What is chosen by a letter is named by it first. */
function lettersFirst(
  item: Item,
  key: Readonly<Record<string, readonly unknown[]>>,
  texts: readonly string[],
): string[] {
  const [only, ...more] = interactionsOf(item);
  if (more.length > 0 || only?.kind !== 'choice') return [...texts];
  const [options = []] = optionSets(only);
  const right = own(key, only.responseId) ?? [];
  const letters = options.flatMap((o, at) => (right.includes(o.id) ? [letterOf(at)] : []));
  return letters.length === texts.length ? letters.map((l, at) => `${l} (${texts[at]})`) : [...texts];
}

/** Solutions, and what the item says to who marks it. */
function notesOf(item: Item): Block[] {
  const set = (nodes: Item['body']): Block[] =>
    blocksOf(nodes, (i, blocks) => formOf(i, { blocks, note: () => undefined }));
  const out: Block[] = item.feedback.filter((f) => f.kind === 'solution').flatMap((f) => set(f.content));
  walk(item.body, (node) => {
    if (node.kind === 'rubricBlock' && /scorer|tutor/u.test(node.view)) out.push(...set(node.children));
  });
  return out;
}

const text = (words: string, bold = false): Block => ({
  kind: 'text',
  style: 'normal',
  inlines: [{ kind: 'text', text: words, marks: bold ? ['bold'] : [] }],
});

/** A rubric as a table: a criterion a row, its levels beside it. */
function rubricBlocks({ title, criteria }: Rubric): Block[] {
  if (criteria.length === 0) return [];
  const most = Math.max(...criteria.map((c) => c.levels.length));
  const cell = (blocks: Block[], header = false): Cell => ({ blocks, header, columns: 1, rows: 1 });
  const row = (c: Criterion): Cell[] => [
    cell([text(c.title, true)], true),
    ...Array.from({ length: most }, (_, at) => {
      const level = c.levels[at];
      if (!level) return cell([]);
      const worth = level.points === null ? '' : ` (${pointsText(level.points)})`;
      return cell([
        text(`${level.title}${worth}`, true),
        ...(level.description ? [text(level.description)] : []),
      ]);
    }),
  ];
  return [...(title ? [text(title, true)] : []), { kind: 'table', rows: criteria.map(row) }];
}
