import type { Quiz } from '@alforja/core';
import { count } from '../format';

/** A quiz's settings and draws as short facts. */
export function quizSummary(quiz: Quiz): string[] {
  const { attempts, timeLimitMinutes, passMark } = quiz.settings;
  const facts: string[] = [];
  for (const { title, draw } of quiz.sections) {
    if (draw)
      facts.push(
        `draws ${draw.pick} of ${draw.pool.length}, ${count(draw.pointsEach)} each${title ? ` (${title})` : ''}`,
      );
  }
  if (timeLimitMinutes !== null) facts.push(`${count(timeLimitMinutes)} minutes`);
  if (attempts !== null)
    facts.push(
      attempts === 'unlimited'
        ? 'unlimited attempts'
        : `${attempts} ${attempts === 1 ? 'attempt' : 'attempts'}`,
    );
  if (passMark !== null) facts.push(`pass mark ${count(passMark)}`);
  const words = [quiz.settings.instructions, ...quiz.sections.map((s) => s.instructions)]
    .filter((t) => t !== null)
    .join(' ');
  if (words) facts.push(`“${words}”`);
  return facts;
}
