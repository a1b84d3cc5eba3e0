import { existsSync } from 'node:fs';
import { rename, rm, writeFile } from 'node:fs/promises';
import { extname } from 'node:path';
import {
  chooseByName,
  everything,
  fileReader,
  finding,
  Refusal,
  RUBRIC_TARGETS,
  selectFrom,
  speak,
  TARGETS,
  writeHolding,
  writeRubrics,
  type Chosen,
  type Finding,
  type Holding,
  type RubricTarget,
  type Target,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { exitFor, printFindings, printJson, type Exit } from './output.ts';
import { readSource } from './source.ts';

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
  const paths = packages.map((_, at) => seriesPath(options.output, at, packages.length));
  if (!options.force) {
    for (const path of paths)
      if (existsSync(path)) throw new Refusal(finding('target-exists', 'error', { path }, { path }));
  }
  await writeAll(paths, packages);
  if (options.json) {
    printJson({
      written: paths,
      findings: all.map((f) => {
        const { code, severity, message, where, hint } = speak(f);
        return { code, severity, message, where, hint };
      }),
    });
  } else {
    process.stdout.write(`${paths.join('\n')}\n`);
    printFindings(all);
  }
  return exitFor(all);
}

/** Rubrics go out as rubrics, everything else as packages; neither can be written as the other. */
async function write(
  holding: Holding,
  target: Target | RubricTarget,
  name: string,
  bytes: Uint8Array,
): Promise<{ packages: readonly Uint8Array[]; findings: readonly Finding[] }> {
  if (isRubricTarget(target)) {
    if (holding.rubrics.length === 0) throw new Refusal(finding('rubrics-none', 'error', { path: name }, {}));
    const written = await writeRubrics(holding.rubrics, target, nodePlatform);
    return { packages: [written.bytes], findings: written.findings };
  }
  if (holding.rubrics.length > 0 && holding.items.length === 0)
    throw new Refusal(
      finding('target-unknown', 'error', { path: name }, { target, known: RUBRIC_TARGETS.join(', ') }),
    );
  return writeHolding(holding, target, await fileReader(name, bytes, nodePlatform));
}

const isRubricTarget = (target: string): target is RubricTarget =>
  (RUBRIC_TARGETS as readonly string[]).includes(target);

function parseTarget(given: string): Target | RubricTarget {
  const all = [...TARGETS, ...RUBRIC_TARGETS];
  const target = all.find((t) => t === given);
  if (target) return target;
  throw new Refusal(finding('target-unknown', 'error', {}, { target: given, known: all.join(', ') }));
}

function chosenFrom(holding: Holding, names: readonly string[]): Chosen {
  const { chosen, unknown, ambiguous } = chooseByName(holding, names);
  for (const name of ambiguous) throw new Refusal(finding('node-ambiguous', 'error', {}, { name }));
  for (const name of unknown) throw new Refusal(finding('node-unknown', 'error', {}, { name }));
  return chosen;
}

/** out.zip, or out-1.zip, out-2.zip … where a series is needed. */
function seriesPath(output: string, at: number, count: number): string {
  if (count === 1) return output;
  const extension = extname(output);
  return `${output.slice(0, output.length - extension.length)}-${at + 1}${extension}`;
}

/** All or nothing: everything is written under temporary names first. */
async function writeAll(paths: readonly string[], contents: readonly Uint8Array[]): Promise<void> {
  const partial = paths.map((path) => `${path}.partial-${process.pid}`);
  try {
    for (const [at, path] of partial.entries()) await writeFile(path, contents[at]!);
    for (const [at, path] of partial.entries()) await rename(path, paths[at]!);
  } catch (error) {
    await Promise.all(partial.map((path) => rm(path, { force: true })));
    const detail = (error as NodeJS.ErrnoException).code ?? (error as Error).message;
    throw new Refusal(finding('file-unreadable', 'error', { path: paths[0]! }, { detail }));
  }
}
