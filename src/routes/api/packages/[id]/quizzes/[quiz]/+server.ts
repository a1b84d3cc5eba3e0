import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { MAX_VERSIONS } from '@alforja/core';
import { ofQuiz, QuizTrouble } from '$lib/server/library/quizzes';
import type { RequestHandler } from './$types';

const seed = z.string().max(200);
const answers = z.record(
  z.string(),
  z.array(z.union([z.string().max(100_000), z.number(), z.boolean()])).max(1000),
);
const Body = z.discriminatedUnion('what', [
  z.object({ what: z.literal('set'), seed }),
  z.object({
    what: z.literal('sit'),
    seed,
    over: z.boolean(),
    attempts: z.array(z.tuple([z.string(), z.array(answers).max(100)])).max(10_000),
  }),
  z.object({ what: z.literal('draws'), seed }),
  z.object({ what: z.literal('versions'), seed, count: z.number().int().min(1).max(MAX_VERSIONS) }),
]);

/** What a candidate is set, what answers come to, what the draws make of a quiz, its versions. */
export const POST: RequestHandler = async ({ params, request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'That is not in the form expected.');
  const quiz = { packageId: params.id, quizId: params.quiz, seed: body.data.seed };
  try {
    switch (body.data.what) {
      case 'set':
        return json(await ofQuiz('quizSet', quiz));
      case 'sit':
        return json(await ofQuiz('quizSit', { ...quiz, attempts: body.data.attempts, over: body.data.over }));
      case 'draws':
        return json(await ofQuiz('quizDraws', quiz));
      case 'versions':
        return json(await ofQuiz('quizVersions', { ...quiz, count: body.data.count }));
    }
  } catch (problem) {
    if (problem instanceof QuizTrouble) error(404, problem.message);
    throw problem;
  }
};
