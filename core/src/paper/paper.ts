import { finding, type Finding } from '../model/finding.ts';
import type { Item, Quiz, Section } from '../model/holding.ts';
import { letterOf } from '../model/letterOf.ts';
import { interactionsOf } from '../model/visit.ts';
import { blocksOf } from './blocks.ts';
import { formOf } from './forms.ts';
import type { Block, Head, OnPaper, Paper, PaperSection, Question } from './types.ts';

/** A settled quiz: nothing in it is drawn or shuffled any more. */
export interface Settled {
  readonly name: string;
  readonly points: number;
  readonly quiz: Quiz;
  readonly items: readonly Item[];
}

export const NO_HEAD: Head = { course: '', date: '' };

/**
 * The paper of a version: what a candidate reads, with room for the answers by kind.
 * @returns what cannot be asked on paper as it was, too, by item
 */
export function paperOf(version: Settled, title: string, head: Head = NO_HEAD): OnPaper<Paper> {
  const findings: Finding[] = [];
  const byId = new Map(version.items.map((i) => [i.id, i]));
  let number = 0;
  const sections = version.quiz.sections.map((section, at): PaperSection => ({
    title: section.title,
    instructions: paragraphs(ownInstructions(version.quiz, section, at)),
    questions: section.items.flatMap(({ item: id }): Question[] => {
      const item = byId.get(id);
      return item ? [question(item, ++number, (what) => findings.push(onPaper(id, what)))] : [];
    }),
  }));
  return {
    made: {
      title,
      version: version.name,
      head,
      points: version.points,
      minutes: version.quiz.settings.timeLimitMinutes,
      language: version.items.find((i) => i.language !== null)?.language ?? null,
      instructions: paragraphs(version.quiz.settings.instructions),
      sections: sections.filter((s) => s.questions.length > 0),
    },
    findings,
  };
}

const onPaper = (node: string, what: string): Finding => finding('loss-kind', 'warning', { node }, { what });

/** Instructions of a section that are not those of the whole quiz. */
const ownInstructions = (quiz: Quiz, section: Section, at: number): string | null =>
  at === 0 && section.instructions === quiz.settings.instructions ? null : section.instructions;

export const paragraphs = (text: string | null): Block[] =>
  (text ?? '')
    .split(/\n+/u)
    .filter((line) => line.trim() !== '')
    .map((line) => ({ kind: 'text', style: 'normal', inlines: [{ kind: 'text', text: line, marks: [] }] }));

function question(item: Item, number: number, note: (what: string) => void): Question {
  const set = (nodes: Item['body']): Block[] =>
    blocksOf(nodes, (interaction, blocks) => formOf(interaction, { blocks, note }));
  return {
    number,
    id: item.id,
    points: item.points,
    blocks: [...item.stimuli.flatMap((s) => set(s.content)), ...set(item.body)],
    sheet: sheetOf(item),
  };
}

/** Letters to mark for one list of choices; a line for what is short; what is long is answered where it is asked. */
function sheetOf(item: Item): Question['sheet'] {
  const interactions = interactionsOf(item);
  const [only] = interactions;
  if (interactions.length === 1 && only?.kind === 'choice')
    return { letters: only.choices.map((_, at) => letterOf(at)), several: only.maxChoices !== 1 };
  const short = interactions.length > 0 && interactions.every((i) => SHORT.has(i.kind));
  return short ? { letters: [], several: interactions.length > 1 } : null;
}

const SHORT: ReadonlySet<string> = new Set([
  'textEntry',
  'inlineChoice',
  'slider',
  'order',
  'associate',
  'match',
  'gapMatch',
]);
