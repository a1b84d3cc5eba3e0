import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { finding, Layout, readHolding, Refusal, RulesFile, type Holding, saidBy } from '@alforja/core';
import { itemHolder } from '@alforja/core/itemHolder';
import { nodePlatform } from '@alforja/core/node';
import type { z } from 'zod';

/** Confirmed readings of private fields and of documents, from a file. @throws Refusal when it cannot be used. */
async function readRules(path: string | undefined): Promise<RulesFile> {
  return path === undefined
    ? { rules: [], layouts: [], tables: [] }
    : readJson(path, 'rules-unreadable', RulesFile);
}

/** A confirmed layout of a document, as `inspect` prints it. @throws Refusal when it cannot be used. */
export async function readLayout(path: string | undefined): Promise<Layout | null> {
  return path === undefined ? null : readJson(path, 'layout-unreadable', Layout);
}

async function readJson<T>(
  path: string,
  code: 'rules-unreadable' | 'layout-unreadable',
  schema: z.ZodType<T>,
): Promise<T> {
  const refuse = (detail: string): never => {
    throw new Refusal(finding(code, 'error', { path }, { detail }));
  };
  const text = await readFile(path, 'utf8').catch((error: NodeJS.ErrnoException) =>
    refuse(error.code ?? error.message),
  );
  try {
    const parsed = schema.safeParse(JSON.parse(text));
    if (parsed.success) return parsed.data;
    const [issue] = parsed.error.issues;
    return refuse(`${issue?.path.join('.') ?? ''}: ${issue?.message ?? ''}`);
  } catch (error) {
    if (error instanceof Refusal) throw error;
    return refuse('it is no JSON');
  }
}

/** A thing by its id, or by a title that only one has. @throws Refusal */
export function oneNamed<T extends { readonly id: string; readonly title: string }>(
  things: readonly T[],
  name: string,
): T {
  const exact = things.find((t) => t.id === name);
  if (exact) return exact;
  const titled = things.filter((t) => t.title === name);
  if (titled.length === 1) return titled[0]!;
  throw new Refusal(finding(titled.length > 1 ? 'node-ambiguous' : 'node-unknown', 'error', {}, { name }));
}

/** So many items stay as trees, which is faster; the others of larger files lie packed, since memory would not do. */
const TREES = 20_000;

interface HowToRead {
  readonly layout?: Layout | null;
  readonly edits?: readonly unknown[];
  /** So many items stay as trees. */
  readonly trees?: number;
}

/** Reads a file from disk into the tree. @throws Refusal when it cannot be read. */
export async function readSource(
  path: string,
  rulesPath?: string,
  { layout = null, edits = [], trees = TREES }: HowToRead = {},
): Promise<{ holding: Holding; bytes: Uint8Array; name: string }> {
  const { rules, layouts: known, tables: layouts } = await readRules(rulesPath);
  const bytes = await readFile(path).catch((error: NodeJS.ErrnoException) => {
    throw new Refusal(finding('file-unreadable', 'error', { path }, { detail: error.code ?? error.message }));
  });
  const name = basename(path);
  return {
    holding: await readHolding(name, bytes, nodePlatform, {
      rules,
      known,
      layouts,
      layout,
      said: saidBy(edits),
      holder: itemHolder(trees),
    }),
    bytes,
    name,
  };
}
