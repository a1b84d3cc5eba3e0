import {
  answerTexts,
  describeShape,
  evaluate,
  explore,
  instantiate,
  interactionsOf,
  keyTexts,
  optionSets,
  printedText,
  put,
  probesOf,
  recognise,
  speak,
  walk,
  type Answers,
  type Finding,
  type Item,
  type Recognised,
} from '@alforja/core';
import type { ItemView } from './types.ts';

const ROWS = 6;

/** Kinds in which what is right is marked at its place. */
const MARKED: ReadonlySet<string> = new Set(['choice', 'hotspot', 'hottext']);

/** What is right in an item: marked at its place where it can be, and in words where it cannot. */
export function viewKey(
  item: Item,
  recognised: Recognised = recognise(item),
): Pick<ItemView, 'keyed' | 'key' | 'keyText'> {
  const interactions = interactionsOf(item);
  const marked = interactions.filter((i) => MARKED.has(i.kind));
  const options = new Set(marked.flatMap((i) => optionSets(i).flatMap((set) => set.map((o) => o.id))));
  const key = keyTexts(item, recognised);
  const keyed = Object.values(recognised.key).flat().map(String);
  return {
    keyed: keyed.filter((id) => options.has(id)),
    key,
    keyText: marked.length < interactions.length && key.length > 0,
  };
}

export function viewItem(item: Item, findings: readonly Finding[]): ItemView {
  const recognised = recognise(item);
  const { scoring: _scoring, ...shown } = item;
  return {
    item: shown,
    ...viewKey(item, recognised),
    printed: printedValues(item),
    exact: item.pointsExact,
    rule: describeShape(item, recognised.shape),
    kind: recognised.shape.kind,
    table: recognised.best.raw > 0 ? scoreTable(item, recognised.best.answers) : [],
    findings: findings.filter((f) => f.where.node === item.id).map(speak),
  };
}

function printedValues(item: Item): Record<string, string> {
  const { templates } = instantiate(item, 1);
  const printed: Record<string, string> = {};
  walk(item.body, (node) => {
    if (node.kind === 'printedVariable' && templates.has(node.id))
      put(printed, node.id, printedText(templates.get(node.id)!, node.attrs));
  });
  return printed;
}

/** The best answer, one answer for each other score, best first, and no answer. */
function scoreTable(item: Item, best: Answers): { answer: string; score: number }[] {
  const seen = new Map<number, Answers>();
  const round = (n: number): number => Number(n.toPrecision(9));
  const look = (): void => {
    for (const answers of [best, ...probesOf(item, best).answers]) {
      const score = round(evaluate(item, answers).score);
      if (!seen.has(score)) seen.set(score, answers);
    }
  };
  explore(look, () => undefined);
  const rows = [...seen]
    .sort(([a], [b]) => b - a)
    .map(([score, answers]) => ({ answer: answerTexts(item, answers).join(' + ') || 'no answer', score }));
  return rows.length <= ROWS ? rows : [...rows.slice(0, ROWS - 1), rows.at(-1)!];
}
