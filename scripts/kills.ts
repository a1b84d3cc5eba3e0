import { parseArgs } from 'node:util';
import { killed } from '../tests/kills/drive.ts';
import { World } from '../tests/kills/world.ts';

/**
 * Kills the built application over and over while it works: node --import tsx scripts/kills.ts [--rounds 67] [--seed 1].
 * Each round asks for a file, two courses, a look, an edit and an undoing, and kills it three times meanwhile.
 */
const { values } = parseArgs({
  options: { rounds: { type: 'string', default: '67' }, seed: { type: 'string', default: '1' } },
});
const rounds = Number(values.rounds);
const from = performance.now();
const world = await World.open([4290], 2 * rounds);
try {
  const { kills, survived, lost, doubled, stuck } = await killed(world, Number(values.seed), rounds);
  const seconds = Math.round((performance.now() - from) / 1000);
  console.log('| seed | kills | survived | lost | doubled | stuck | seconds |');
  console.log('|---:|---:|---:|---:|---:|---:|---:|');
  console.log(
    `| ${values.seed} | ${kills} | ${survived} | ${lost.length} | ${doubled.length} | ${stuck.length} | ${seconds} |`,
  );
  for (const what of [...lost, ...doubled, ...stuck]) console.error(what);
  process.exitCode = survived === kills ? 0 : 1;
} finally {
  await world.close();
}
