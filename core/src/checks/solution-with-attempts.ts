import type { Check } from './check.ts';

/** Showing the solution while further attempts are allowed: who fails once copies it the second time. */
export const solutionWithAttempts: Check<'solution-with-attempts'> = {
  code: 'solution-with-attempts',
  severity: 'warning',
  whole: ({ quizzes, items }) => {
    const byId = new Map(items.map((i) => [i.id, i]));
    return quizzes.flatMap((quiz) => {
      const { attempts } = quiz.settings;
      const again = attempts === 'unlimited' || (typeof attempts === 'number' && attempts > 1);
      if (!again) return [];
      const flagged =
        quiz.test?.parts.some((p) => p.session?.flags['showSolution'] === true) === true ||
        quiz.metadata.some(
          (f) =>
            /solution/iu.test(f.label) &&
            /^(?:yes|true|1)$/iu.test(f.value) &&
            /permitted|switch|show/iu.test(f.label),
        );
      const told = quiz.sections
        .flatMap((s) => [...s.items.map((r) => r.item), ...(s.draw?.pool ?? [])])
        .filter((id) => byId.get(id)?.feedback.some((f) => f.kind === 'solution')).length;
      return flagged || told > 0
        ? [{ node: quiz.id, path: quiz.origin?.path ?? null, params: { attempts: String(attempts), told } }]
        : [];
    });
  },
};
