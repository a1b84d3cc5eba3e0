import { plainNumber, type Quiz, type TestItemRef, type TestSection } from '@alforja/core';

/** What a test says beyond its list of items: parts, conditions, weights, its own scoring and feedback. */
function structureFacts({ test }: Quiz): string[] {
  if (!test) return [];
  const facts: string[] = [];
  let conditions = 0;
  let branches = 0;
  let weighted = 0;
  const visit = (node: TestSection | TestItemRef): void => {
    conditions += node.preConditions.length;
    branches += node.branchRules.length;
    if (node.kind === 'item') weighted += node.weights.some((w) => w.value !== 1) ? 1 : 0;
    else node.children.forEach(visit);
  };
  for (const part of test.parts) {
    conditions += part.preConditions.length;
    branches += part.branchRules.length;
    part.sections.forEach(visit);
  }
  if (test.parts.length > 1) facts.push(`${test.parts.length} parts`);
  if (test.parts.some((p) => p.navigationMode === 'linear')) facts.push('in a fixed order, no way back');
  if (conditions > 0)
    facts.push(
      `${conditions} ${conditions === 1 ? 'item or section is' : 'items or sections are'} shown on a condition`,
    );
  if (branches > 0) facts.push(`${branches} ${branches === 1 ? 'jump' : 'jumps'} on a condition`);
  if (weighted > 0) facts.push(`${weighted} weighted`);
  if (test.feedback.length > 0) facts.push(`${test.feedback.length} texts at the end`);
  return facts;
}

/** A quiz's settings and draws as short facts. */
export function quizFacts(quiz: Quiz): string[] {
  const { attempts, timeLimitMinutes, passMark } = quiz.settings;
  const facts: string[] = [];
  for (const { title, draw } of quiz.sections) {
    if (draw)
      facts.push(
        `draws ${draw.pick} of ${draw.pool.length}, ${plainNumber(draw.pointsEach)} each${title ? ` (${title})` : ''}`,
      );
  }
  if (timeLimitMinutes !== null) facts.push(`${plainNumber(timeLimitMinutes)} minutes`);
  if (attempts !== null)
    facts.push(
      attempts === 'unlimited'
        ? 'unlimited attempts'
        : `${attempts} ${attempts === 1 ? 'attempt' : 'attempts'}`,
    );
  if (passMark !== null) facts.push(`pass mark ${plainNumber(passMark)}`);
  facts.push(...structureFacts(quiz));
  const words = [quiz.settings.instructions, ...quiz.sections.map((s) => s.instructions)]
    .filter((t) => t !== null)
    .join(' ');
  if (words) facts.push(`“${words}”`);
  return facts;
}
