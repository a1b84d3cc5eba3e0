import {
  finding,
  hasTemplates,
  MAX_REPLICAS,
  Refusal,
  replicaHolding,
  replicasOf,
  TARGETS,
} from '@alforja/core';
import { wholeNumber } from './numbers.ts';
import { exitFor, plainFinding, printFindings, printJson, type Exit } from './output.ts';
import { oneNamed, readSource } from './source.ts';
import { targetAmong, write, writeSeries } from './writing.ts';

interface Options {
  item: string;
  count: string;
  seed: string;
  to: string;
  output: string;
  force?: boolean;
  json?: boolean;
  rules?: string;
}

/** Writes fixed items made from one with templates, as one bank; each has been run beside it. */
export async function replicas(file: string, options: Options): Promise<Exit> {
  const target = targetAmong(TARGETS, options.to);
  const count = wholeNumber('--count', options.count, MAX_REPLICAS);
  const { holding, bytes, name } = await readSource(file, options.rules);
  const item = oneNamed(holding.items, options.item);
  if (!hasTemplates(item))
    throw new Refusal(finding('item-without-templates', 'error', { node: item.id }, { item: options.item }));
  const made = replicasOf(item, count, options.seed);
  const { packages, findings } = await write(
    replicaHolding(holding, item, made.replicas),
    target,
    name,
    bytes,
  );
  const all = [...made.findings, ...findings];
  const written = await writeSeries(options.output, packages, options.force ?? false);
  if (options.json)
    printJson({
      written,
      replicas: made.replicas.map(({ item: { id }, seed, values, key, proved }) => ({
        id,
        seed,
        values,
        key,
        proved,
      })),
      findings: all.map(plainFinding),
    });
  else {
    process.stdout.write(`${written.join('\n')}\n`);
    for (const r of made.replicas)
      process.stdout.write(`${r.item.id}  ${JSON.stringify(r.values)}  [${r.key.join('; ')}]\n`);
    printFindings(all);
  }
  return exitFor(all);
}
