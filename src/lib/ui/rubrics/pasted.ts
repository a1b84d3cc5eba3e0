import { goto } from '$app/navigation';

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
