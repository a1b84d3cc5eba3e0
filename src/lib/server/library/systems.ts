import { inside } from '../connectors/door.ts';
import { OneRosterConnector, type ReadRubrics } from '../connectors/oneroster.ts';
import { seal, unseal } from '../connectors/secret.ts';
import { ConnectorError, type Connector } from '../connectors/types.ts';
import { courseIdOf, type CourseListing } from '../../shared/courses.ts';
import type { Handler } from '../runner/handler.ts';
import { replaceCourses } from '../store/courses.ts';
import { write } from '../store/database.ts';
import { queueJob } from '../store/jobs.ts';
import { worked } from './worked.ts';
import { keepSystem, listSystems, noteSync, removeSystem, systemById } from '../store/systems.ts';

const readRubrics: ReadRubrics = (files) => worked('rubricsThere', { files }, ConnectorError);

/**
 * @param over who is told when a request had to be made again, and what breaks requests off
 * @throws where there is no such system any more
 */
export async function connectorTo(
  systemId: string,
  { onRetry, signal }: { readonly onRetry?: (what: string) => void; readonly signal?: AbortSignal } = {},
): Promise<Connector> {
  const system = await systemById(systemId);
  if (!system) throw new Error('That course system is no longer connected.');
  const { name, address, token } = system;
  return new OneRosterConnector(
    {
      name,
      address,
      token: unseal(token),
      inside,
      ...(onRetry ? { onRetry } : {}),
      ...(signal ? { signal } : {}),
    },
    readRubrics,
  );
}

/** Connects a system after asking it who it is, and has its courses listed. @returns its id */
export async function connect(address: string, token: string): Promise<string> {
  const about = await new OneRosterConnector({ name: address, address, token, inside }, readRubrics).about();
  const sealed = seal(token);
  return write(async (tx) => {
    const id = await keepSystem(tx, { address, token: sealed, about });
    await queueJob(tx, 'sync', id);
    return id;
  });
}

/** Takes a connection away with the list of its courses; what was brought from it stays. */
export const disconnect = (id: string): Promise<void> =>
  write(async (tx) => {
    await replaceCourses(tx, id, []);
    await removeSystem(tx, id);
  });

const STALE_MS = 60_000;

/** Asks every system for its courses again that was last asked more than a minute ago. */
export async function refreshSystems(force = false): Promise<void> {
  const stale = (await listSystems()).filter(
    ({ syncedAt }) => force || syncedAt === null || Date.now() - syncedAt > STALE_MS,
  );
  if (stale.length === 0) return;
  await write(async (tx) => {
    for (const { id } of stale) await queueJob(tx, 'sync', id);
  });
}

/** Lists the courses of a system. */
export const sync: Handler = {
  waits: true,
  async run(id, { tell, signal }) {
    const system = await systemById(id);
    if (!system) return;
    tell(`Looking at the courses of ${system.name}`, 0, 0);
    const connector = await connectorTo(id, { signal });
    try {
      const [about, found] = [await connector.about(), await connector.courses()];
      const listings = found.map(({ classId, ...said }): CourseListing => ({
        ...said,
        id: courseIdOf(id, classId),
        systemId: id,
        system: system.name,
      }));
      await write(async (tx) => {
        await replaceCourses(tx, id, listings);
        await noteSync(tx, id, { about });
      });
    } catch (error) {
      if (!(error instanceof ConnectorError)) throw error;
      // The courses last seen stay listed.
      await write((tx) => noteSync(tx, id, { trouble: error.message }));
    }
  },
};
