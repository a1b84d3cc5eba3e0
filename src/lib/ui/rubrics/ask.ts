import { goto } from '$app/navigation';

/** Asks the server something about rubrics. @throws Error with words for people */
export async function ask<T>(path: string, body: unknown, method = 'POST'): Promise<T> {
  const response = await fetch(path, {
    method,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  }).catch(() => null);
  const said = (await response?.json().catch(() => null)) as (T & { message?: string }) | null;
  if (!response?.ok || said === null)
    throw new Error(said?.message ?? 'The server did not answer. Try again.');
  return said;
}

/** What was pasted on its way to the page where a table becomes a rubric. */
let pasted: { readonly rows: string[][]; readonly title: string } | null = null;

export function takeTable(rows: string[][], title = ''): Promise<void> {
  pasted = { rows, title };
  return goto('/rubrics/table');
}
export function takenTable(): typeof pasted {
  const taken = pasted;
  pasted = null;
  return taken;
}
