import {
  fileReader,
  totalPoints,
  selectFrom,
  chosenFrom,
  writeHolding,
  type Finding,
  type Holding,
  type Landing,
  type Target,
  type Tick,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import type { TransferOptions } from '../../shared/transfers.ts';
import { readStored, storeBytes } from '../store/files.ts';
import { selected, type Selection } from './holdings.ts';
import type { Progress } from './progress.ts';
import { rubricsBeside, travelling, type Takes } from './planning.ts';

export interface WriteInput extends Selection {
  /** The source file, for the files that go along. */
  readonly file: { readonly sha256: string; readonly name: string };
  readonly landings: readonly Landing[];
  readonly options: TransferOptions;
  readonly target: Target;
  readonly takes: Takes;
  /** Of all that is planned only these nodes; null is all. */
  readonly only: readonly Tick[] | null;
}

/** Where a file stands in the store. */
export interface Kept {
  readonly sha256: string;
  readonly bytes: number;
}

export interface WriteResult {
  /** One package, or a series; none where nothing has to be written. */
  readonly packages: readonly Kept[];
  /** The file of rubrics beside them. */
  readonly rubrics: Kept | null;
  readonly items: number;
  readonly points: number;
  readonly findings: readonly Finding[];
}

/**
 * Writes what travels, into the store. Links that the format has no place for go in a cartridge beside it, where the
 * destination takes one, and rubrics in a file of their own.
 */
export async function writeTask(asked: WriteInput, progress: Progress): Promise<WriteResult> {
  const { holding } = await selected(asked, progress);
  const planned = travelling(holding, asked.landings, asked.options, asked.toCourse);
  const travels = asked.only ? selectFrom(planned, chosenFrom(asked.only)).holding : planned;
  progress('Writing the package', 0, travels.items.length);
  const { sha256, name } = asked.file;
  const reader = await fileReader(name, await readStored(sha256), nodePlatform);
  const kept: Kept[] = [];
  const findings: Finding[] = [];
  for (const [part, target] of splitLinks(travels, asked)) {
    const written = writeHolding(part, target, reader, nodePlatform);
    for (const bytes of written.packages) kept.push(await storeBytes(bytes));
    findings.push(...written.findings);
  }
  const beside = await rubricsBeside(travels, asked.takes.rubrics);
  return {
    packages: kept,
    rubrics: beside.file && (await storeBytes(beside.file)),
    items: travels.items.length,
    points: totalPoints(travels.items),
    findings: [...findings, ...beside.findings],
  };
}

/** What goes in which format; nothing where there is nothing to write. */
function splitLinks(travels: Holding, { target, takes, toCourse }: WriteInput): [Holding, Target][] {
  const cartridge = target.startsWith('cc') ? undefined : takes.formats.find((t) => t.startsWith('cc'));
  const apart = toCourse && cartridge !== undefined && travels.links.length > 0;
  const main = apart ? { ...travels, links: [] } : travels;
  const holds = main.quizzes.length + main.banks.length + main.links.length + main.items.length > 0;
  return [
    ...(holds ? [[main, target] as [Holding, Target]] : []),
    ...(apart
      ? [
          [{ ...travels, quizzes: [], banks: [], items: [], files: [], outline: [] }, cartridge] as [
            Holding,
            Target,
          ],
        ]
      : []),
  ];
}
