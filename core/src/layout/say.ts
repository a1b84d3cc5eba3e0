import { labelText } from './labels.ts';
import { keySourceOf, NONE, type Layout } from './layout.ts';
import { PLAIN_CHOICES } from './raw.ts';

/** Layouts in words. */

/** The first labels of a shape as they are seen: `1. 2. 3.`, `•`. Several shapes are one after the other. */
export function sayShape(shape: string): string {
  if (shape === NONE) return 'none';
  if (shape === PLAIN_CHOICES) return 'a line each';
  return shape
    .split(' | ')
    .map((one) => [...new Set([1, 2, 3].map((n) => labelText(one, n)))].join(' '))
    .join(' or ');
}

const MARKS: Readonly<Record<string, string>> = {
  bold: 'bold',
  italic: 'italic',
  underline: 'underlined',
  strike: 'struck out',
  highlight: 'highlighted',
  colour: 'in colour',
  sign: 'a sign, * or ✓',
};

/** Where keys stand, in words. @param said as a layout has it */
export function sayKeyPlace(said: string): string {
  const source = keySourceOf(said);
  switch (source?.by) {
    case 'mark':
      return MARKS[source.mark] ?? `“${source.mark.replace(/^word /u, '')}” behind the choice`;
    case 'line':
      return `“${source.name}”`;
    case 'list':
      return 'a list of answers';
    case 'file':
      return 'a file of answers';
    case 'front':
      return 'before the number';
    case 'hand':
      return 'as pointed at';
    default:
      return 'nowhere';
  }
}

/** A layout in few words, to be told from others. */
export const sayLayout = ({ question, choice, key }: Pick<Layout, 'question' | 'choice' | 'key'>): string =>
  `questions ${sayShape(question)}; choices ${sayShape(choice)}; key ${sayKeyPlace(key)}`;
