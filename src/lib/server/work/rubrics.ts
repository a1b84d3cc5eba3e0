import { readHolding, type Rubric } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';

/** Rubrics as a course system gives them, each as a file of its own. */
export interface RubricsAsked {
  readonly files: readonly { readonly form: 'csv' | 'case1.0'; readonly content: string }[];
}

/** The first rubric of each file, in order; fewer than there are files where one holds none. */
export async function rubricsTask({ files }: RubricsAsked): Promise<Rubric[]> {
  const found: Rubric[] = [];
  for (const { form, content } of files) {
    const name = form === 'csv' ? 'rubric.csv' : 'rubric.json';
    const { rubrics } = await readHolding(name, new TextEncoder().encode(content), nodePlatform);
    if (rubrics[0]) found.push(rubrics[0]);
  }
  return found;
}
