import { trial, conversion } from './trial.ts';
import { compareHoldings, readHolding } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { comparisonInWords } from '@alforja/core';
const seed = Number(process.argv[2]);
const { outcomes, written } = await (process.env.CONV ? conversion : trial)(seed);
console.log(outcomes.filter((o) => o.miss));
const [a, b] = await Promise.all(written.map((w, i) => readHolding(i + '.zip', w, nodePlatform)));
const c = comparisonInWords(compareHoldings(a!, b!));
for (const p of c.pairs)
  for (const d of p.differences)
    console.log(p.source, p.arrived, p.by, d.facet, '\n  ', d.from, '\n  ', d.to, JSON.stringify(d.example));
for (const p of c.containers)
  for (const d of p.differences) console.log(p.source, p.arrived, d.facet, '\n  ', d.from, '\n  ', d.to);
console.log(c.missing, c.extra);
if (process.argv[4]) {
  const it = a!.items.find((i) => i.id === process.argv[3])!;
  console.log(JSON.stringify(it.body).slice(0, 3000));
  const it2 = b!.items.find((i) => i.id === process.argv[4])!;
  console.log(JSON.stringify(it2.body).slice(0, 3000));
  console.log(JSON.stringify(it.scoring.rules).slice(0, 1500));
  console.log(JSON.stringify(it2.scoring.rules).slice(0, 1500));
}
import { unzipSync, strFromU8 } from 'fflate';
if (process.argv[3] === 'xml') {
  for (const w of written) {
    const f = unzipSync(w);
    console.log(
      Object.entries(f)
        .filter(([p]) => p.endsWith('.xml'))
        .map(([p, c]) => p + '\n' + strFromU8(c))
        .join('\n')
        .replace(/></g, '>\n<'),
    );
    console.log('==========');
  }
}
