import type { CourseOutline, Landing } from '@alforja/core';
import { readStored } from '../store/files.ts';
import { landingOrder } from './landingOrder.ts';
import { saysHalfWay } from './says.ts';
import { sendingError, type SendContext } from './sendContext.ts';
import { union } from './sending.ts';

/** The plan that is being carried out. */
export const plannedLandings = async (context: SendContext): Promise<readonly Landing[]> =>
  (await context.transfer()).plan?.landings ?? [];

/** Hands the packages over; asking again for the same one does nothing. */
export async function upload(context: SendContext): Promise<string> {
  const files = await context.files();
  const parts = await context.parts();
  const order = landingOrder(await plannedLandings(context), parts, context.sending.sectionsAs);
  const connector = await context.connector();
  for (const [part, { sha256 }] of files.entries()) {
    context.job.tell('Uploading', part, files.length);
    const opened = await connector.openImport(context.classId, order, `${context.sending.id}:${part}`);
    await context.save((s) => ({
      ...s,
      imports: [...s.imports.filter((i) => i.part !== part), { part, job: opened.id }],
    }));
    await connector.givePackage(opened.id, await readStored(sha256));
  }
  if (files.length === 0) return 'nothing to upload';
  return files.length === 1 ? 'one package' : `${files.length} packages`;
}

/** A wait that people notice. */
const SLOW_MS = 2000;

/** Waits until the destination has taken everything in, and sets older things aside. */
export async function waitForImport(context: SendContext): Promise<string> {
  // The import begins when it is handed over; the answer to that may itself be late.
  const handedOver = context.sending.steps.find((s) => s.name === 'upload')?.startedAt;
  const began = handedOver ?? Date.now();
  const connector = await context.connector();
  let failed: { readonly error: string | null; readonly errorCode: string | null } | null = null;
  for (const { job } of context.sending.imports) {
    const done = await connector.waitFor(job, context.job.signal, (state) =>
      context.job.tell(`The destination: ${state}`, 0, 0),
    );
    await context.save((s) => ({ ...s, created: union(s.created, done.created) }));
    if (done.state === 'failed') failed ??= done;
  }
  const landings = await plannedLandings(context);
  const outline = await connector.outline(context.classId);
  if (failed !== null)
    throw sendingError(
      `The destination broke off: ${failed.error ?? 'it gave no reason'} ${saysHalfWay(landings, outline, context.sending.created)}`,
      failed.errorCode === 'section-count' ? 'section-count' : 'other',
    );
  await setAside(context, landings, outline);
  const took = Date.now() - began;
  if (took > SLOW_MS)
    await context.note(
      `The destination took ${Math.round(took / 1000)} seconds over the import; nothing was lost by it.`,
    );
  return `${context.sending.created.length} things made there`;
}

/** The older one is hidden and renamed, never deleted. */
async function setAside(
  context: SendContext,
  landings: readonly Landing[],
  outline: CourseOutline,
): Promise<void> {
  const connector = await context.connector();
  for (const { action, there } of landings) {
    const thing =
      action === 'replace' && there !== null ? outline.things.find((t) => t.id === there) : undefined;
    if (!thing || context.sending.setAside.some((s) => s.thing === thing.id)) continue;
    const { id, title, hidden } = thing;
    await context.save((s) => ({ ...s, setAside: [...s.setAside, { thing: id, title, hidden }] }));
    // A thing that nobody can change stays as it is; that is said, and nothing else stops for it.
    await connector
      .change(context.classId, id, { hidden: true, title: `${title} (older)` })
      .catch(async (error: { status?: number; message: string }) => {
        if (error.status !== 409) throw error;
        await context.note(`The older “${title}” stands there as it was: ${error.message}`);
      });
  }
}
