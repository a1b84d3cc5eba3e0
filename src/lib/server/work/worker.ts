import { refill, Refusal } from '@alforja/core';
import { causesOf, fenced, type Transaction } from '../store/database.ts';
import { Gate, passThrough } from '../store/gate.ts';
import { needOwner, type JobOwner } from '../store/jobs.ts';
import { troubleOf } from '../store/open.ts';
import { attachTask, compareTask } from './arriving.ts';
import { bothSides } from './bothSides.ts';
import { bindTask } from './binding.ts';
import { documentsTask } from './documents.ts';
import { contentsTask } from './contents.ts';
import { contentsItemsTask, contentsListTask } from './contentsList.ts';
import { fileTask, peepTask } from './files.ts';
import { tablesTask, tableTask } from './rubricTables.ts';
import { itemTask, scoreTask, wholeTask } from './items.ts';
import { listRubricsTask, rubricFileTask, rubricThereTask } from './heldRubrics.ts';
import { roomTask, roomTextTask } from './room.ts';
import { rubricsTask } from './rubrics.ts';
import type { Asked, OrderKind, Orders, Outcome, ProgressMessage } from './orders.ts';
import type { Progress } from './progress.ts';
import { giveBack, needMemory } from './memory.ts';
import { madeCarry, madeWeigh, madeWrite } from './making.ts';
import { madeBank } from './ownBank.ts';
import { madeShelf } from './shelves.ts';
import { planTask } from './planning.ts';
import { quizDraws, quizPaper, quizSet, quizSit, quizVersions } from './quizzes.ts';
import { readTask } from './reading.ts';
import { sheetDiffer, sheetFind, sheetRows, tableOfSheet, typeCells } from './sheet.ts';
import { bankItemsTask, countsTask, linksTask, namesTask, quizHeadTask, repairsTask } from './trees.ts';
import { writeTask } from './writing.ts';

type Task<K extends OrderKind> = (
  asked: Orders[K]['asked'],
  progress: Progress,
  by: JobOwner | null,
) => Promise<Orders[K]['result']>;

const TASKS: { readonly [K in OrderKind]: Task<K> } = {
  read: readTask,
  bind: bindTask,
  documents: documentsTask,
  file: fileTask,
  peep: peepTask,
  tables: tablesTask,
  rubricTable: tableTask,
  listRubrics: listRubricsTask,
  rubricThere: rubricThereTask,
  rubricFile: rubricFileTask,
  room: roomTask,
  roomText: roomTextTask,
  contents: contentsTask,
  contentsList: contentsListTask,
  contentsItems: contentsItemsTask,
  links: linksTask,
  names: namesTask,
  repairs: repairsTask,
  quizHead: quizHeadTask,
  bankCounts: countsTask,
  bankItems: bankItemsTask,
  item: itemTask,
  itemWhole: wholeTask,
  itemScore: scoreTask,
  rubricsThere: rubricsTask,
  plan: planTask,
  write: writeTask,
  attach: attachTask,
  compare: compareTask,
  bothSides,
  quizSet,
  quizSit,
  quizDraws,
  quizVersions,
  quizPaper,
  madeShelf,
  madeWeigh,
  madeCarry,
  madeWrite,
  madeBank,
  sheetRows,
  sheetCells: typeCells,
  sheetFind,
  sheetTable: tableOfSheet,
  sheetDiffer,
};

/** Runs one order in this thread. */
export default async function run<K extends OrderKind>({ order, port, gate }: Asked<K>): Promise<Outcome<K>> {
  let at = '';
  const progress: Progress = (step, done, total) => {
    at = step;
    port.postMessage({ step, done, total } satisfies ProgressMessage);
  };
  passThrough(new Gate(gate), () => needMemory(at));
  try {
    refill();
    const task: Task<K> = TASKS[order.kind];
    const by = order.by ?? null;
    const fence = by ? (tx: Transaction) => needOwner(tx, by) : null;
    return { ok: true, result: await fenced(fence, () => task(order.asked, progress, by)) };
  } catch (error) {
    const refusal = causesOf(error).find((cause) => cause instanceof Refusal);
    if (refusal) return { ok: false, failure: refusal.finding };
    // In words: what else an error says gets lost between threads.
    throw troubleOf(error);
  } finally {
    port.close();
    // Until the next order the thread stands still: nothing can be done later.
    giveBack();
    passThrough(null);
  }
}
