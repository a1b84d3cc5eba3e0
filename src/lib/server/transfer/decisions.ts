import { tallyOf } from '@alforja/core';
import { partsOfCourse } from '../../shared/courses.ts';
import type { Decision } from '../../shared/transfers.ts';
import { write } from '../store/database.ts';
import { listSystems, systemById } from '../store/systems.ts';
import { changeTransfer, type Transfer } from '../store/transfers.ts';

/** Who is said to send and to decide where no system names anybody. */
const NOBODY_NAMED = 'somebody at this installation';

/**
 * Whose name stands under what is sent and accepted: the holder of the token that opens the destination, else
 * the source; for files alone, whoever all connections belong to.
 */
export async function whoDecides({
  destCourse,
  sourceCourse,
}: Pick<Transfer, 'destCourse' | 'sourceCourse'>): Promise<string> {
  const course = destCourse ?? sourceCourse;
  const system = course ? await systemById(partsOfCourse(course).systemId) : null;
  if (system) return system.about.user.name;
  const holders = new Set((await listSystems()).map((s) => s.about.user.name));
  return holders.size === 1 ? [...holders][0]! : NOBODY_NAMED;
}

/** Takes differences as they are, for a reason; an empty reason opens them again. */
export async function decide(transfer: Transfer, ids: readonly string[], reason: string): Promise<void> {
  const given = new Set(ids);
  const by = await whoDecides(transfer);
  const at = Date.now();
  const mine = reason === '' ? [] : ids.map((key): Decision => ({ key, reason, by, at }));
  await write((tx) =>
    changeTransfer(tx, transfer.id, (before) => {
      const decisions = [...before.decisions.filter((d) => !given.has(d.key)), ...mine];
      const { arrival } = before;
      if (!arrival) return { decisions };
      return {
        decisions,
        tally: tallyOf(
          arrival,
          decisions.map((d) => d.key),
        ),
      };
    }),
  );
}
