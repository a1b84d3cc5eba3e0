import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { demoFiles } from './packages.ts';

/** Writes the demo's packages into a folder: node --import tsx demo/write.ts FOLDER */
const folder = process.argv[2] ?? 'data/demo-packages';
await mkdir(folder, { recursive: true });
for (const file of demoFiles()) await writeFile(join(folder, file.name), file.bytes);
process.stdout.write(`${folder}\n`);
