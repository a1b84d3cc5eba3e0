import { patiently } from './away.svelte';

/**
 * Sends the server something as JSON and gives what it answers.
 * @param otherwise what is said where the server gives no reason, or no answer at all
 * @throws Error with words for people
 */
export async function ask<T>(
  path: string,
  body: unknown,
  {
    method = 'POST',
    otherwise = 'The server did not answer. Try again.',
  }: { readonly method?: 'POST' | 'PUT' | 'DELETE'; readonly otherwise?: string } = {},
): Promise<T> {
  const response = await patiently(() =>
    fetch(path, {
      method,
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    }),
  ).catch(() => null);
  const said = (await response?.json().catch(() => null)) as
    (T & { message?: string; foreseen?: boolean }) | null | undefined;
  // What went wrong unforeseen has no words for people.
  const unforeseen = response?.status === 500 && !said?.foreseen;
  if (!response?.ok) throw new Error((unforeseen ? undefined : said?.message) ?? otherwise);
  return (said ?? {}) as T;
}
