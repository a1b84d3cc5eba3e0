import { describeShape, evaluate, interactionsOf, keyTexts, plain, plainNumber, probesOf, recognise, speak, type Answers, type Finding, type Item } from '@alforja/core'; // prettier-ignore
import type { ItemView } from '../../shared/types.ts';

const ROWS = 6;

export function viewItem(item: Item, findings: readonly Finding[]): ItemView {
  const recognised = recognise(item);
  const choices = new Set(
    interactionsOf(item).flatMap((i) => (i.kind === 'choice' ? i.choices.map((c) => c.id) : [])),
  );
  const { scoring: _scoring, ...shown } = item;
  return {
    item: shown,
    keyed: Object.values(recognised.key)
      .flat()
      .map(String)
      .filter((id) => choices.has(id)),
    key: keyTexts(item, recognised),
    rule: describeShape(item, recognised.shape),
    kind: recognised.shape.kind,
    table: recognised.best.raw > 0 ? scoreTable(item, recognised.best.answers) : [],
    findings: findings.filter((f) => f.where.node === item.id).map(speak),
  };
}

/** The best answer, one answer for each other score, best first, and no answer. */
function scoreTable(item: Item, best: Answers): { answer: string; score: number }[] {
  const seen = new Map<number, Answers>();
  const round = (n: number): number => Number(n.toPrecision(9));
  for (const answers of [best, ...probesOf(item, best).answers]) {
    const score = round(evaluate(item, answers).score);
    if (!seen.has(score)) seen.set(score, answers);
  }
  const rows = [...seen]
    .sort(([a], [b]) => b - a)
    .map(([score, answers]) => ({ answer: answerText(item, answers), score }));
  return rows.length <= ROWS ? rows : [...rows.slice(0, ROWS - 1), rows.at(-1)!];
}

/** An answer in words: choices by letter, several responses side by side. */
export function answerText(item: Item, answers: Answers): string {
  const parts = Object.entries(answers).flatMap(([id, values]) => {
    if (values.length === 0) return [];
    const interaction = interactionsOf(item).find((i) => i.kind === 'choice' && i.responseId === id);
    if (interaction?.kind !== 'choice')
      return [values.map((v) => (typeof v === 'number' ? plainNumber(v) : `“${v}”`)).join(', ')];
    const given = interaction.choices.filter((c) => values.includes(c.id));
    return [given.map((c) => plain(c.content).slice(0, 60) || c.id).join(' + ')];
  });
  return parts.join(' · ') || 'no answer';
}
