import { ask } from '../ask';
import { live } from '../live.svelte';

/**
 * Asks something of a transfer into a course, and loads the page's data again. Gives what went wrong, or
 * nothing.
 */
export async function command(transferId: string, body: Readonly<Record<string, unknown>>): Promise<string> {
  const otherwise = 'The server did not answer. Nothing was changed; try again.';
  const trouble = await ask<{ failed?: string[] }>(`/api/transfers/${transferId}/do`, body, {
    otherwise,
  }).then(
    (said) => (said.failed ?? []).join(' '),
    (error: Error) => error.message,
  );
  await live.reload();
  return trouble;
}
