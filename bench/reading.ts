import { readFileSync } from 'node:fs';
import { compareHoldings, evaluate, probesOf, readHolding, recognise, type Holding } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { LIMITS, raw } from './raw.ts';
import { best } from './rounds.ts';

/** Reading, comparing and probing of one package; prints the figures as JSON: node reading.js PATH */
const bytes = new Uint8Array(readFileSync(process.argv[2]!));
const read = (): Promise<Holding> => readHolding('bench.zip', bytes, nodePlatform, LIMITS);
const rounds = bytes.length > 20_000_000 ? 2 : 5;

let unpackedBytes = 0;
const rawMs = await best(rounds, async () => {
  unpackedBytes = await raw(bytes);
});
const readMs = await best(rounds, read);

/** What came back: other identifiers, and one item in fifty changed. */
function changed(back: Holding): Holding {
  const renamed = new Map(back.items.map((item, at) => [item.id, `q_${at}`]));
  return {
    ...back,
    items: back.items.map((item, at) => ({
      ...item,
      id: renamed.get(item.id)!,
      points: at % 50 === 0 ? item.points + 1 : item.points,
    })),
    banks: back.banks.map((bank) => ({ ...bank, items: bank.items.map((id) => renamed.get(id)!) })),
  };
}

const [holding, other] = [await read(), changed(await read())];
/** Trees know nothing of earlier rounds: what has been recognised of them is found out again. */
const anew = (of: Holding): Holding => ({ ...of, items: of.items.map((i) => ({ ...i })) });
const compareMs = await best(rounds, () => void compareHoldings(anew(holding), anew(other)));

const sample = holding.items.slice(0, 2000);
const sets = sample.map((item) => ({ item, answers: probesOf(item, recognise(item).best.answers).answers }));
let probes = 0;
const probeMs = await best(5, () => {
  probes = 0;
  for (const { item, answers } of sets) {
    for (const given of answers) evaluate(item, given);
    probes += answers.length;
  }
});
const recogniseMs = await best(5, () => {
  for (const item of sample) recognise({ ...item });
});
process.stdout.write(
  JSON.stringify({
    items: holding.items.length,
    unpackedBytes,
    rawMs,
    readMs,
    compareMs,
    probes,
    probeMs,
    recogniseMicroseconds: (recogniseMs * 1000) / sample.length,
  }),
);
