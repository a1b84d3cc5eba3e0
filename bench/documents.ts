import { spawnSync } from 'node:child_process';
import { bundle } from './bundle.ts';

/** Documents against the raw cost of their bytes: node --import tsx bench/documents.ts */
await bundle('documentsMeasure');
const child = spawnSync(process.execPath, ['--expose-gc', 'build/bench/documentsMeasure.js'], {
  encoding: 'utf8',
});
if (child.status !== 0) throw new Error(child.stderr);
process.stdout.write(child.stdout);
