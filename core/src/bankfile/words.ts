import type { Block, Inline } from '../paper/types.ts';

/** The labels that lines have; they are read back by the same words. */
export const LABELS = {
  answer: 'Answer',
  feedback: 'Feedback',
  hint: 'Hint',
  category: 'Category',
  points: 'Points',
} as const;

export const pointsIn = (points: number): string => `(${points} ${points === 1 ? 'point' : 'points'})`;

/** Blocks as paragraphs of plain text. */
export function paragraphsOf(blocks: readonly Block[]): string[] {
  return blocks.flatMap((block): string[] => {
    switch (block.kind) {
      case 'text': {
        const text = block.inlines.map(inlineText).join('').trim();
        return text === '' ? [] : [text];
      }
      case 'list':
        return block.items.map(
          (item, at) => `${block.ordered ? `${at + 1}.` : '•'} ${paragraphsOf(item).join(' ')}`,
        );
      case 'table':
        return block.rows.map((cells) => cells.map((c) => paragraphsOf(c.blocks).join(' ')).join('\t'));
      default:
        return [];
    }
  });
}

function inlineText(inline: Inline): string {
  switch (inline.kind) {
    case 'text':
      return inline.text;
    case 'math':
      return inline.plain;
    case 'picture':
      return inline.alt === '' ? '' : `[${inline.alt}]`;
    case 'blank':
      return '_'.repeat(inline.letters);
    case 'break':
      return '\n';
  }
}

/** Blocks as one text. */
export const textOf = (blocks: readonly Block[]): string =>
  paragraphsOf(blocks).join(' ').replace(/\s+/gu, ' ').trim();
