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
  const headers = { 'Content-Type': 'application/json', 'Idempotency-Key': newKey() };
  const response = await patiently(() =>
    fetch(path, {
      method,
      headers,
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

/** A key that no other request has: one that is asked twice because its answer was lost is done once. */
const newKey = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join(
    '',
  );
