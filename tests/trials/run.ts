import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { edited } from './edits.ts';
import { conversion, trial } from './trial.ts';

/** node --import tsx tests/trials/run.ts --count 100000 --from 1: runs trials and prints misses by class. */
const { values } = parseArgs({
  options: {
    count: { type: 'string', default: '5000' },
    from: { type: 'string', default: '1' },
    keep: { type: 'string' },
    convert: { type: 'boolean', default: false },
    edits: { type: 'boolean', default: false },
  },
});
const wanted = Number(values.count);
const byName = new Map<string, { trials: number; misses: Map<string, number[]> }>();
let done = 0;
let missed = 0;
let seed = Number(values.from);
const started = Date.now();
for (; done < wanted; seed++) {
  const { outcomes, written } = await (values.edits ? edited : values.convert ? conversion : trial)(seed);
  for (const { name, miss } of outcomes) {
    const row = byName.get(name) ?? { trials: 0, misses: new Map<string, number[]>() };
    row.trials += 1;
    done += 1;
    if (miss) {
      missed += 1;
      row.misses.set(miss, [...(row.misses.get(miss) ?? []), seed]);
      if (values.keep === String(seed)) {
        writeFileSync(join(tmpdir(), 'trial-left.zip'), written[0]);
        writeFileSync(join(tmpdir(), 'trial-right.zip'), written[1]);
      }
    }
    byName.set(name, row);
  }
}
for (const [name, { trials, misses }] of [...byName].sort()) {
  const all = [...misses.values()].reduce((n, s) => n + s.length, 0);
  console.log(`${String(trials).padStart(7)} ${String(all).padStart(6)}  ${name}`);
  for (const [miss, seeds] of [...misses].sort((x, y) => y[1].length - x[1].length).slice(0, 4))
    console.log(`                  ${seeds.length} x ${miss} (seed ${seeds.slice(0, 3).join(', ')})`);
}
console.log(
  `${done} trials, ${missed} misses, seeds ${values.from} to ${seed - 1}, ${((Date.now() - started) / 1000).toFixed(0)} s`,
);
process.exitCode = missed > 0 ? 1 : 0;
