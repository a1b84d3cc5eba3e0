import {
  type BankDraft,
  type Draft,
  finding,
  type ItemAt,
  MAX_MADE,
  namedItems,
  newBank,
  newQuiz,
  type QuizDraft,
  speak,
  withItems,
} from '@alforja/core';
import type { MakerView, OwnBankView, QuizMade, ShelfView } from '../../shared/making.ts';
import { write } from '../store/database.ts';
import { storeBytes } from '../store/files.ts';
import { changeMade, insertMade, listMade, madeById, noteSetDown, type Made } from '../store/made.ts';
import { forgetTaken, noteTaken } from '../store/takenItems.ts';
import { packageListing } from '../store/packages.ts';
import type { Orders } from '../work/orders.ts';
import { bringIn } from './packages.ts';
import { worked } from './worked.ts';

/** Quizzes and banks that are made here; what takes time is worked out in a thread. */

/** Something cannot be done with what is made, in words for people. */
export class MakingTrouble extends Error {}

export const beginQuiz = (title: string): Promise<string> => write((tx) => insertMade(tx, newQuiz(title)));

/** @throws MakingTrouble where it names more items than what is made can hold */
function checked<D extends Draft>(draft: D): D {
  const count = namedItems(draft).length;
  if (count <= MAX_MADE) return draft;
  throw new MakingTrouble(speak(finding('made-too-large', 'error', {}, { count, limit: MAX_MADE })).message);
}

/** A bank of one's own, with items of any source in it. */
export async function beginBank(title: string, items: readonly ItemAt[]): Promise<string> {
  const draft = checked(withItems(newBank(title), items));
  const id = await write((tx) => insertMade(tx, draft));
  if (items.length > 0) await setDown(id);
  return id;
}

export async function quizzesMade(): Promise<QuizMade[]> {
  return (await listMade('quiz')).flatMap(
    ({ id, title, changedAt, draft, version, packageId, packageVersion }) =>
      draft.kind === 'quiz'
        ? [
            {
              id,
              title,
              changedAt,
              sections: draft.sections.length,
              draws: draft.sections.filter((s) => s.draw !== null).length,
              fixed: draft.sections.reduce((sum, s) => sum + s.items.length, 0),
              packageId: packageVersion === version ? packageId : null,
            },
          ]
        : [],
  );
}

export async function quizMade(id: string): Promise<(Made & { readonly draft: QuizDraft }) | null> {
  const made = await madeById(id);
  return made?.draft.kind === 'quiz' ? { ...made, draft: made.draft } : null;
}
export async function bankMade(id: string): Promise<(Made & { readonly draft: BankDraft }) | null> {
  const made = await madeById(id);
  return made?.draft.kind === 'bank' ? { ...made, draft: made.draft } : null;
}

/** Keeps what was changed. @returns the version it is now @throws MakingTrouble where it was changed elsewhere */
export async function keepDraft(id: string, from: number, draft: Draft): Promise<number> {
  const fitting = checked(draft);
  const version = await write((tx) => changeMade(tx, id, from, fitting));
  if (version === null)
    throw new MakingTrouble(
      'It was changed in another window, or thrown away. Load the page again to go on from there.',
    );
  return version;
}

export const shelfView = (asked: Orders['madeShelf']['asked']): Promise<ShelfView | null> =>
  worked('madeShelf', asked, MakingTrouble);

export const weighed = (madeId: string, draft: QuizDraft): Promise<MakerView> =>
  worked('madeWeigh', { madeId, draft }, MakingTrouble);

export const planCarried = (madeId: string, draft: QuizDraft, as: 'draws' | 'items'): Promise<QuizDraft> =>
  worked('madeCarry', { madeId, draft, as }, MakingTrouble);

export const bankLook = (madeId: string, draft: BankDraft): Promise<OwnBankView> =>
  worked('madeBank', { madeId, draft }, MakingTrouble);

/**
 * Writes what is made as a package, unless it stands as one already, and keeps its items as they were taken.
 * @returns the package's id @throws MakingTrouble where there is nothing to write
 */
export async function setDown(id: string): Promise<string> {
  const made = await madeById(id);
  if (!made) throw new MakingTrouble('There is nothing of that name any more.');
  if (made.packageId && made.packageVersion === made.version && (await packageListing(made.packageId)))
    return made.packageId;
  const { bytes, items, taken } = await worked('madeWrite', { madeId: id, draft: made.draft }, MakingTrouble);
  if (items === 0 && made.kind === 'quiz') throw new MakingTrouble('There are no questions in it yet.');
  const { package: kept } = await bringIn(made.title || 'Untitled', await storeBytes(bytes), 'made');
  await write(async (tx) => {
    await noteTaken(tx, id, taken);
    await noteSetDown(tx, id, kept.id, made.version);
  });
  return kept.id;
}

/** Changes a bank of one's own and sets it down. @param change answers what it is then */
export async function changeBank(
  id: string,
  from: number,
  change: (draft: BankDraft) => BankDraft,
): Promise<void> {
  const made = await bankMade(id);
  if (!made) throw new MakingTrouble('There is no such bank any more.');
  await keepDraft(id, from, change(made.draft));
  await setDown(id);
}

/** Takes items of what is made as their sources have them now. @returns the version it is then */
export async function takeNewer(id: string, items: readonly ItemAt[]): Promise<number> {
  const version = await write(async (tx) => {
    const made = await madeById(id, tx);
    if (!made) return null;
    for (const place of new Set(items.map((i) => i.place))) {
      const those = items.filter((i) => i.place === place).map((i) => i.item);
      await forgetTaken(tx, id, place, those);
    }
    return changeMade(tx, id, made.version, made.draft);
  });
  if (version === null) throw new MakingTrouble('There is nothing of that name any more.');
  return version;
}

/** A bank split: some of its items in one of their own, which follows the first. @returns the new bank's id */
export async function splitBank(
  id: string,
  from: number,
  keys: readonly string[],
  title: string,
): Promise<string> {
  const made = await bankMade(id);
  if (!made) throw new MakingTrouble('There is no such bank any more.');
  const apart = new Set(keys);
  const those = made.draft.items.filter((i) => apart.has(i.key));
  const fresh = await beginBank(title, those);
  await changeBank(id, from, (d) => ({ ...d, items: d.items.filter((i) => !apart.has(i.key)) }));
  return fresh;
}
