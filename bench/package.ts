import { writeFileSync } from 'node:fs';
import { fileReader, readHolding, writeHolding } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { largePackage } from '../demo/large.ts';

/** Writes a package of so many mixed items: node package.js ITEMS FORMAT PATH */
const [items, format, path] = process.argv.slice(2);
const banks = largePackage(Number(items));
if (format === '1.2') writeFileSync(path!, banks);
else {
  // QTI 2.1 has a file an item.
  const holding = await readHolding('bench.zip', banks, nodePlatform);
  const { packages } = writeHolding(
    holding,
    'qti2.1',
    await fileReader('bench.zip', banks, nodePlatform),
    nodePlatform,
  );
  writeFileSync(path!, packages[0]!);
}
