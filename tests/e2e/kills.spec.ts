import { expect, test } from './support/test.ts';
import { killed, sideBySide } from '../kills/drive.ts';
import { World } from '../kills/world.ts';

/** No page: the application as a whole, on folders of its own. */
const ROUNDS = 5;

test('killed fifteen times while it works, it loses nothing and does nothing twice', async () => {
  const world = await World.open([4285], 2 * ROUNDS);
  try {
    const { kills, ...came } = await killed(world, 20_260_914, ROUNDS);
    expect(came).toEqual({ survived: kills, lost: [], doubled: [], stuck: [] });
    expect(kills).toBe(15);
  } finally {
    await world.close();
  }
});

test('two processes on one folder share the work, and one may be restarted while the other goes on', async () => {
  const world = await World.open([4285, 4286], 8);
  try {
    const came = await sideBySide(world, 7, 3);
    expect([came.lost, came.doubled, came.stuck]).toEqual([[], [], []]);
    expect(came.kills).toBe(3);
    expect(came.asked).toBeGreaterThan(10);
  } finally {
    await world.close();
  }
});
