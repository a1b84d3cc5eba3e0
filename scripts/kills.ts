import { parseArgs } from 'node:util';
import { killed, sideBySide, type Tally } from '../tests/kills/drive.ts';
import { World } from '../tests/kills/world.ts';

/**
 * Kills the built application over and over while it works: node --import tsx scripts/kills.ts [--rounds 67] [--seed 1].
 * Each round asks for a file, two courses, a look, an edit and an undoing, and kills it three times meanwhile. With
 * --two RESTARTS two processes work on one folder instead, and are restarted in turn.
 */
const { values } = parseArgs({
  options: {
    rounds: { type: 'string', default: '67' },
    seed: { type: 'string', default: '1' },
    two: { type: 'string' },
  },
});
const seed = Number(values.seed);
const from = performance.now();

function say(name: string, { kills, survived, lost, doubled, stuck }: Tally): void {
  const seconds = Math.round((performance.now() - from) / 1000);
  console.log('| | seed | ends | survived | lost | doubled | stuck | seconds |');
  console.log('|---|---:|---:|---:|---:|---:|---:|---:|');
  console.log(
    `| ${name} | ${seed} | ${kills} | ${survived} | ${lost.length} | ${doubled.length} | ${stuck.length} | ${seconds} |`,
  );
  for (const what of [...lost, ...doubled, ...stuck]) console.error(what);
  process.exitCode = lost.length + doubled.length + stuck.length === 0 ? 0 : 1;
}

const rounds = Number(values.rounds);
const world = values.two ? await World.open([4292, 4293], 40) : await World.open([4290], 2 * rounds);
try {
  if (values.two) {
    const tally = await sideBySide(world, seed, Number(values.two));
    say(`two processes, ${tally.asked} things asked for`, tally);
  } else say('killed', await killed(world, seed, rounds));
} finally {
  await world.close();
}
