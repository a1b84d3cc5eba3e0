import { snapshot } from './library/courses.ts';
import { read, readAnew, removeBrokenReadings } from './library/reading.ts';
import { sync } from './library/systems.ts';
import { emptyTrash } from './library/trash.ts';
import { Runner, type Handlers } from './runner/runner.ts';
import { openDatabase } from './store/database.ts';
import { cleanTemporary } from './store/files.ts';
import { batch } from './transfer/batch.ts';
import { plan } from './transfer/plan.ts';
import { send } from './transfer/send.ts';
import { undo } from './transfer/undo.ts';

/** What is done for each kind of job. */
export const HANDLERS: Handlers = { read, sync, snapshot, plan, send, undo, batch };

export const runner = new Runner(HANDLERS);

const EVERY_DAY_MS = 86_400_000;

/** Opens the house: database, files, and whatever an earlier run of the process left to do. */
export async function openHouse(): Promise<void> {
  await openDatabase();
  await cleanTemporary();
  await removeBrokenReadings();
  await runner.start();
  await readAnew();
  // It goes through every stored file: nobody waits for it.
  const clear = (): void => void emptyTrash().catch(console.error);
  clear();
  setInterval(clear, EVERY_DAY_MS).unref();
}
