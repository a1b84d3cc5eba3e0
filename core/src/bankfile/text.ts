import { letterOf } from '../model/letterOf.ts';
import type { Block } from '../paper/types.ts';
import type { SaidBank } from './banks.ts';
import type { SaidItem } from './say.ts';
import { LABELS, paragraphsOf, pointsIn, textOf } from './words.ts';

/**
 * A bank as plain text:
 * `1. How long is a nautical mile? (2 points)`, `a. 1609 m`, `b. 1852 m`, `Answer: b`.
 */
export function bankText(title: string, banks: readonly SaidBank[]): string {
  const lines: string[] = [];
  if (title !== '') lines.push(title, '');
  for (const bank of banks) {
    if (banks.length > 1) lines.push(`Part ${banks.indexOf(bank) + 1}: ${bank.title}`, '');
    let passage: string | null = null;
    for (const [at, item] of bank.items.entries()) {
      if (item.passage && item.passage.path !== passage) lines.push(...passageLines(bank.items, at), '');
      passage = item.passage?.path ?? null;
      lines.push(...itemLines(item, at + 1), '');
    }
  }
  return `${lines.join('\n').trimEnd()}\n`;
}

/** "Questions 3 to 5:" and what they are about. */
function passageLines(items: readonly SaidItem[], from: number): string[] {
  const { path, blocks } = items[from]!.passage!;
  let to = from;
  while (items[to + 1]?.passage?.path === path) to += 1;
  return [`Questions ${from + 1} to ${to + 1}`, '', ...paragraphsOf(blocks)];
}

function itemLines(item: SaidItem, number: number): string[] {
  const stem = paragraphsOf(item.stem);
  const last = stem.length - 1;
  const asked = stem.map((text, at) => `${oneLine(text)}${at === last ? ` ${pointsIn(item.points)}` : ''}`);
  const labelled = (label: string, blocks: readonly Block[]): string[] =>
    textOf(blocks) === '' ? [] : [`${label}: ${textOf(blocks)}`];
  return [
    `${number}. ${asked.join('\n\n') || pointsIn(item.points)}`,
    ...item.left.map((blocks, at) => `(${at + 1}) ${textOf(blocks)}`),
    ...item.choices.map((blocks, at) => `${letterOf(at).toLowerCase()}. ${textOf(blocks)}`),
    ...(item.answer === '' ? labelled(LABELS.answer, item.model) : [`${LABELS.answer}: ${item.answer}`]),
    ...item.feedback.flatMap((f) => labelled(LABELS.feedback, f)),
    ...item.hints.flatMap((f) => labelled(LABELS.hint, f)),
    ...(item.category === '' ? [] : [`${LABELS.category}: ${item.category}`]),
    ...item.fields.map((f) => `${f.label}: ${oneLine(f.value)}`),
  ];
}

const oneLine = (text: string): string => text.replace(/\s+/gu, ' ');
