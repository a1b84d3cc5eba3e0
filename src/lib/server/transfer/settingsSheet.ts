import { type CourseThing, type Landing, landingId, own, UNNAMED } from '@alforja/core';
import type { SheetLine } from '../../shared/receipt.ts';
import type { SentQuiz } from '../../shared/transfers.ts';
import type { Transfer } from '../store/transfers.ts';
import { sourceOf } from './source.ts';

/**
 * What no package carries has to be set at the destination: dates, visibility and review always, the rest by
 * format.
 */
export async function settingsSheet(transfer: Transfer): Promise<SheetLine[]> {
  const { sent, plan, arrival, destCourse } = transfer;
  if (!sent) return [];
  const ticked = new Set(sent.ticks.filter((t) => t.kind === 'quiz').map((t) => t.nodeId));
  // As they were sent, whatever is put right in the source afterwards.
  const quizzes = sent.quizzes ?? (await sourceOf(transfer))?.tree.quizzes ?? [];
  return quizzes
    .filter((q) => ticked.has(q.id))
    .flatMap((quiz) => {
      const landing = plan?.landings.find((l) => l.kind === 'quiz' && l.node === quiz.id) ?? null;
      if (landing?.action === 'skip' && landing.existing !== 'same') return [];
      const landed = own(arrival?.landing?.landed ?? {}, landingId({ kind: 'quiz', node: quiz.id }));
      const there = arrival?.landing?.outline.things.find((t) => t.id === landed) ?? null;
      return [
        ...setThere(quiz, destCourse === null ? null : landing, there),
        ...setByHand(quiz, sent, landing),
      ];
    });
}

/** What is set at the landing itself. */
function setThere(quiz: SentQuiz, landing: Landing | null, there: CourseThing | null): SheetLine[] {
  const line = (setting: string, value: string | null, found: boolean | null): SheetLine[] =>
    value === null ? [] : [{ quiz: nameOf(quiz, landing), setting, value, found }];
  const { opens, closes } = landing ?? quiz.settings;
  return [
    ...line('opens', opens, there && there.opens === opens),
    ...line('closes', closes, there && there.closes === closes),
    ...(landing
      ? [
          ...line('answers may be reviewed', landing.review, there && there.review === landing.review),
          ...line(
            'students',
            landing.hidden ? 'do not see it yet' : 'see it',
            there && there.hidden === landing.hidden,
          ),
        ]
      : []),
  ];
}

/** What the format had no place for; dates are told apart. */
const setByHand = (
  quiz: SentQuiz,
  { findings }: NonNullable<Transfer['sent']>,
  landing: Landing | null,
): SheetLine[] =>
  findings.flatMap((f) =>
    f.code === 'loss-settings' && f.where.node === quiz.id && f.params.setting !== 'dates'
      ? [{ quiz: nameOf(quiz, landing), setting: 'set by hand', value: f.params.what, found: null }]
      : [],
  );

const nameOf = (quiz: SentQuiz, landing: Landing | null): string =>
  landing?.name ?? (quiz.title || UNNAMED.quiz);
