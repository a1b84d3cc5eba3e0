import { UNNAMED, type Calling, type Tree } from '@alforja/core';

/** What sections, quizzes, banks, rubrics and links of a package are called, by their ids. */
export function callingIn(tree: Pick<Tree, 'quizzes' | 'banks' | 'rubrics' | 'links'> | null): Calling {
  if (tree === null) return (id) => id;
  const names = new Map<string, string>();
  for (const { sections } of tree.quizzes)
    sections.forEach((s, at) => names.set(s.id, s.title || `${at + 1}`));
  for (const quiz of tree.quizzes) names.set(quiz.id, quiz.title || UNNAMED.quiz);
  for (const bank of tree.banks) names.set(bank.id, bank.title || UNNAMED.bank);
  for (const { id, title } of [...tree.rubrics, ...tree.links]) names.set(id, title);
  return (id) => names.get(id) ?? id;
}
