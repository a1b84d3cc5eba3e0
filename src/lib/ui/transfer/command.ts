import { live } from '../live.svelte';

/** Asks something of a transfer into a course, and loads the page's data again. Gives what went wrong, or nothing. */
export async function command(transferId: string, body: Readonly<Record<string, unknown>>): Promise<string> {
  const response = await fetch(`/api/transfers/${transferId}/do`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  }).catch(() => null);
  const said = (await response?.json().catch(() => null)) as
    { message?: string; failed?: string[] } | null | undefined;
  await live.reload();
  if (!response?.ok) return said?.message ?? 'The server did not answer. Nothing was changed; try again.';
  return (said?.failed ?? []).join(' ');
}
