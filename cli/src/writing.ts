import { existsSync } from 'node:fs';
import { rename, rm, writeFile } from 'node:fs/promises';
import { extname } from 'node:path';
import {
  BANK_TARGETS,
  finding,
  fileReader,
  Refusal,
  RUBRIC_TARGETS,
  TARGETS,
  writeHolding,
  withEmbedded,
  writeRubrics,
  type BankTarget,
  type Finding,
  type Format,
  type Holding,
  type RubricTarget,
  type Target,
} from '@alforja/core';
import { writeBankFile } from '@alforja/core/bankfile';
import { nodePlatform } from '@alforja/core/node';

type AnyTarget = Target | RubricTarget | BankTarget;

/** Rubrics go out as rubrics, questions as packages, or as documents and tables where that is asked for. */
export async function write(
  holding: Holding,
  target: AnyTarget,
  name: string,
  bytes: Uint8Array,
): Promise<{ packages: readonly Uint8Array[]; findings: readonly Finding[] }> {
  if (isBankTarget(target) && (holding.items.length > 0 || !isRubricTarget(target))) {
    const read = withEmbedded(holding, await fileReader(name, bytes, nodePlatform));
    const written = await writeBankFile(holding, target, read, nodePlatform);
    return { packages: written.bytes.length > 0 ? [written.bytes] : [], findings: written.findings };
  }
  if (isRubricTarget(target)) {
    if (holding.rubrics.length === 0) throw new Refusal(finding('rubrics-none', 'error', { path: name }, {}));
    const written = await writeRubrics(holding.rubrics, target, nodePlatform);
    return { packages: [written.bytes], findings: written.findings };
  }
  if (holding.rubrics.length > 0 && holding.items.length === 0)
    throw new Refusal(
      finding('target-unknown', 'error', { path: name }, { target, known: RUBRIC_TARGETS.join(', ') }),
    );
  return writeHolding(holding, target, await fileReader(name, bytes, nodePlatform), nodePlatform);
}

const isBankTarget = (target: string): target is BankTarget =>
  (BANK_TARGETS as readonly string[]).includes(target);

/** Packages lose what their standard cannot say; that is forecast, and repaired. */
export const isPackageTarget = (target: AnyTarget): target is Target =>
  (TARGETS as readonly string[]).includes(target);

const isRubricTarget = (target: string): target is RubricTarget =>
  (RUBRIC_TARGETS as readonly string[]).includes(target);

const ALL_TARGETS: readonly AnyTarget[] = [...TARGETS, ...RUBRIC_TARGETS, ...BANK_TARGETS];

/** One of these formats. @throws Refusal for any other */
export function targetAmong<T extends string>(known: readonly T[], given: string): T {
  const target = known.find((t) => t === given);
  if (target) return target;
  throw new Refusal(finding('target-unknown', 'error', {}, { target: given, known: known.join(', ') }));
}

export const parseTarget = (given: string): AnyTarget => targetAmong(ALL_TARGETS, given);

/** The target that writes what a source is written in, where there is one. */
export function ownTarget({ standard, version, container }: Format): AnyTarget {
  const named: Readonly<Record<Format['standard'], string>> = {
    qti: `qti${version ?? ''}`,
    // There is no writing of the first version; the next one says the same.
    'common-cartridge': `cc${version === '1.0' ? '1.1' : (version ?? '')}`,
    case: 'case1.0',
    table: container,
    document: container,
    text: 'text',
    unknown: 'unknown',
  };
  return parseTarget(named[standard]);
}

/** out.zip, or out-1.zip, out-2.zip … where a series is needed. */
function seriesPath(output: string, at: number, count: number): string {
  if (count === 1) return output;
  const extension = extname(output);
  return `${output.slice(0, output.length - extension.length)}-${at + 1}${extension}`;
}

/** Writes packages under one name, or as a numbered series. @see writeFiles */
export const writeSeries = (
  output: string,
  packages: readonly Uint8Array[],
  force: boolean,
): Promise<string[]> =>
  writeFiles(
    packages.map((bytes, at) => ({ path: seriesPath(output, at, packages.length), bytes })),
    force,
  );

/**
 * Writes files. All or nothing: everything is written under temporary names first.
 * @returns the paths
 * @throws Refusal where a file is there already and is not to be replaced, or nothing can be written
 */
export async function writeFiles(
  files: readonly { readonly path: string; readonly bytes: Uint8Array }[],
  force: boolean,
): Promise<string[]> {
  const paths = files.map((f) => f.path);
  if (!force)
    for (const path of paths)
      if (existsSync(path)) throw new Refusal(finding('target-exists', 'error', { path }, { path }));
  const partial = paths.map((path) => `${path}.partial-${process.pid}`);
  try {
    for (const [at, path] of partial.entries()) await writeFile(path, files[at]!.bytes);
    for (const [at, path] of partial.entries()) await rename(path, paths[at]!);
  } catch (error) {
    await Promise.all(partial.map((path) => rm(path, { force: true })));
    const detail = (error as NodeJS.ErrnoException).code ?? (error as Error).message;
    throw new Refusal(finding('file-unreadable', 'error', { path: paths[0] ?? null }, { detail }));
  }
  return paths;
}
