import type { FileChild } from 'docx';
import { letterOf } from '../model/letterOf.ts';
import { docxOf, room } from '../paper/docx.ts';
import { DocxSetter } from '../paper/docxBlocks.ts';
import type { ReadFile } from '../paper/pictures.ts';
import { PAPER_STYLE, type Block } from '../paper/types.ts';
import type { SaidBank } from './banks.ts';
import type { SaidItem } from './say.ts';
import { LABELS, pointsIn } from './words.ts';

/** A bank as a word-processor file: text, emphasis, pictures, tables and formulas as they are. */
export function bankDocx(
  title: string,
  banks: readonly SaidBank[],
  language: string | null,
  read: ReadFile,
): Promise<Uint8Array> {
  const set = new DocxSetter(PAPER_STYLE, read, room(PAPER_STYLE));
  const children: FileChild[] = title === '' ? [] : [set.heading(title, 1)];
  for (const bank of banks) {
    if (banks.length > 1) children.push(set.heading(bank.title, 2));
    let passage: string | null = null;
    for (const [at, item] of bank.items.entries()) {
      if (item.passage && item.passage.path !== passage) children.push(...passageOf(set, bank.items, at));
      passage = item.passage?.path ?? null;
      children.push(...itemOf(set, item, at + 1));
    }
  }
  return docxOf(title, language, PAPER_STYLE, children);
}

function passageOf(set: DocxSetter, items: readonly SaidItem[], from: number): FileChild[] {
  const { path, blocks } = items[from]!.passage!;
  let to = from;
  while (items[to + 1]?.passage?.path === path) to += 1;
  return [set.line(`Questions ${from + 1} to ${to + 1}`), ...set.blocks(blocks)];
}

function itemOf(set: DocxSetter, item: SaidItem, number: number): FileChild[] {
  const labelled = (label: string, blocks: readonly Block[]): FileChild[] => {
    const [first, ...rest] = blocks;
    if (first?.kind !== 'text') return [set.line(label), ...set.blocks(blocks)];
    return [...set.block(first, { before: label }), ...set.blocks(rest)];
  };
  const [first, ...rest] = item.stem;
  const after = `  ${pointsIn(item.points)}`;
  // Points go behind the last words of the question.
  const last = rest.findLastIndex((b) => b.kind === 'text');
  return [
    ...(first?.kind === 'text'
      ? set.block(first, { before: `${number}.`, ...(last < 0 ? { after } : {}) })
      : [set.line(`${number}. ${pointsIn(item.points)}`), ...set.blocks(first ? [first] : [])]),
    ...rest.flatMap((b, at) => set.block(b, first?.kind === 'text' && at === last ? { after } : {})),
    ...item.left.flatMap((blocks, at) => labelled(`(${at + 1})`, blocks)),
    ...item.choices.flatMap((blocks, at) => labelled(`${letterOf(at).toLowerCase()}.`, blocks)),
    ...(item.answer === ''
      ? item.model.length === 0
        ? []
        : labelled(`${LABELS.answer}:`, item.model)
      : [set.line(`${LABELS.answer}: ${item.answer}`)]),
    ...item.feedback.flatMap((f) => labelled(`${LABELS.feedback}:`, f)),
    ...item.hints.flatMap((f) => labelled(`${LABELS.hint}:`, f)),
    ...(item.category === '' ? [] : [set.line(`${LABELS.category}: ${item.category}`)]),
    ...item.fields.map((f) => set.line(`${f.label}: ${f.value}`)),
  ];
}
