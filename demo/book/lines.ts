import type { BookQuestion, Chapter } from './question.ts';

/** A chapter as lines of a document, before it is a file. */

export interface BookLine {
  readonly text: string;
  /** Numbered by the word processor, not in the text. */
  readonly list?: 'question' | 'choice';
  readonly heading?: boolean;
  readonly bold?: boolean;
  readonly highlight?: boolean;
  /** A blank line stands before it. */
  readonly apart?: boolean;
  readonly picture?: 'harbour' | 'transit';
  readonly formula?: readonly [string, string, string];
}

/** How the files of the book say what is right: the publisher never settled on one way. */
interface Manner {
  /** Labels come from the word processor. */
  readonly automatic?: boolean;
  readonly key: 'bold' | 'highlight' | 'star' | 'lines' | 'list';
}

const LETTERS = 'abcdef';
export const letters = (right: readonly number[]): string => right.map((r) => LETTERS[r]).join(', ');

/** What is right, as one writes it behind a label. */
export function keyText(q: BookQuestion): string {
  switch (q.kind) {
    case 'choice':
      return letters(q.right);
    case 'truth':
      return q.right ? 'True' : 'False';
    case 'word':
      return q.answers.join('; ');
    case 'number':
      return q.within === 0 ? `${q.value}` : `${q.value} ± ${q.within}`;
    case 'essay':
      return q.model;
  }
}

export function chapterLines({ number, title, questions }: Chapter, manner: Manner): BookLine[] {
  const out: BookLine[] = [{ text: `Chapter ${number}: ${title}`, heading: true }];
  for (const [at, q] of questions.entries()) out.push(...questionLines(q, at + 1, manner));
  if (manner.key === 'list') {
    out.push({ text: 'Answer key', heading: true, apart: true });
    out.push(...questions.map((q, at): BookLine => ({ text: `${at + 1}. ${keyText(q)}`, apart: at === 0 })));
  }
  return out;
}

function questionLines(q: BookQuestion, number: number, { automatic, key }: Manner): BookLine[] {
  const worth = q.points === 1 || key === 'lines' ? '' : ` (${q.points} points)`;
  const stem = `${q.stem}${worth}`;
  const choices = q.kind === 'choice' ? q.choices : [];
  const right = q.kind === 'choice' ? q.right : [];
  return [
    automatic ? { text: stem, list: 'question', apart: true } : { text: `${number}. ${stem}`, apart: true },
    ...(q.picture ? [{ text: '', picture: q.picture }] : []),
    ...(q.formula ? [{ text: '', formula: q.formula }] : []),
    ...choices.map((text, at): BookLine => {
      const marked = right.includes(at);
      const said = automatic ? text : `${key === 'star' && marked ? '*' : ''}${LETTERS[at]}. ${text}`;
      return {
        text: said,
        ...(automatic ? { list: 'choice' as const } : {}),
        bold: key === 'bold' && marked,
        highlight: key === 'highlight' && marked,
      };
    }),
    ...(key === 'lines' || choices.length === 0 ? fieldLines(q, key) : []),
  ];
}

function fieldLines(q: BookQuestion, key: Manner['key']): BookLine[] {
  if (key === 'list') return [];
  const fields: [string, string][] = [['Answer', keyText(q)]];
  if (key === 'lines') {
    fields.push(['Points', String(q.points)]);
    if (q.topic) fields.push(['Topic', q.topic]);
    if (q.why) fields.push(['Rationale', q.why]);
  }
  return fields.map(([name, value]) => ({ text: `${name}: ${value}` }));
}
