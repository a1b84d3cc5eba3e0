import {
  chooseByName,
  everything,
  finding,
  Refusal,
  selectFrom,
  type Chosen,
  type Holding,
} from '@alforja/core';
import { exitFor, plainFinding, printFindings, printJson, type Exit } from './output.ts';
import { readSource } from './source.ts';
import { parseTarget, write, writeSeries } from './writing.ts';

interface Options {
  to: string;
  output: string;
  only?: string[];
  force?: boolean;
  json?: boolean;
  rules?: string;
}

export async function convert(file: string, options: Options): Promise<Exit> {
  const target = parseTarget(options.to);
  const { holding, bytes, name } = await readSource(file, options.rules);
  const selected = options.only
    ? selectFrom(holding, chosenFrom(holding, options.only))
    : everything(holding);
  const { packages, findings } = await write(selected.holding, target, name, bytes);
  const all = [...holding.findings, ...findings];
  const paths = await writeSeries(options.output, packages, options.force ?? false);
  if (options.json) printJson({ written: paths, findings: all.map(plainFinding) });
  else {
    process.stdout.write(`${paths.join('\n')}\n`);
    printFindings(all);
  }
  return exitFor(all);
}

function chosenFrom(holding: Holding, names: readonly string[]): Chosen {
  const { chosen, unknown, ambiguous } = chooseByName(holding, names);
  for (const name of ambiguous) throw new Refusal(finding('node-ambiguous', 'error', {}, { name }));
  for (const name of unknown) throw new Refusal(finding('node-unknown', 'error', {}, { name }));
  return chosen;
}
