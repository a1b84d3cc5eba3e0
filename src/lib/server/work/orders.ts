import type { MessagePort } from 'node:worker_threads';
import type { BankAt, Edit, Finding, QuizDraft, Rubric } from '@alforja/core';
import type { JobOwner } from '../store/jobs.ts';
import type { ContentsList, ContentsShown, ItemPage } from '../../shared/contents.ts';
import type { DataPeep, ItemScore, TableReading } from '../../shared/types.ts';
import type { FileAsked } from './files.ts';
import type { FileTable, RubricTableAsked } from './rubricTables.ts';
import type { ListedRubric, RubricAsked, RubricFileAsked, ShownRubric } from './heldRubrics.ts';
import type { ItemAsked, ScoreAsked, WholeAsked } from './items.ts';
import type { ContentsAsked } from './contents.ts';
import type { ItemsAsked, ListAsked } from './contentsList.ts';
import type { SeenPackage } from './room.ts';
import type { Counted, HeadAsked, NamesAsked, PackageAsked, RepairsAsked } from './trees.ts';
import type { RubricsAsked } from './rubrics.ts';
import type { ArrivalInput, ArrivalResult, AttachResult, CompareInput } from './arriving.ts';
import type { BothAsked } from './bothSides.ts';
import type { PlanInput, PlanResult } from './planning.ts';
import type { DocumentsView } from '../../shared/documents.ts';
import type { BindAsked } from './binding.ts';
import type { DocumentsAsked } from './documents.ts';
import type { MakerView, OwnBankView, ShelfView } from '../../shared/making.ts';
import type { LinkLine } from '../../shared/links.ts';
import type { BothView, FairView, QuizHead, SatView, SetView, VersionsView } from '../../shared/quizzes.ts';
import type { DraftAsked } from './madeRows.ts';
import type { CarryAsked, SetDown } from './making.ts';
import type { ShelfAsked } from './shelves.ts';
import type { Made, PaperAsked, QuizAsked, SitAsked, VersionsAsked } from './quizzes.ts';
import type { ReadInput, ReadResult } from './reading.ts';
import type {
  CellsAsked,
  CellsDone,
  DifferAsked,
  DifferDone,
  FindAsked,
  FindDone,
  RowsAsked,
  TableAsked,
} from './sheet.ts';
import type { WriteInput, WriteResult } from './writing.ts';

/**
 * The typed protocol between the runner and its worker threads: what each kind of order asks for and comes
 * to.
 */
export interface Orders {
  readonly read: { readonly asked: ReadInput; readonly result: ReadResult };
  readonly bind: { readonly asked: BindAsked; readonly result: Uint8Array };
  readonly documents: { readonly asked: DocumentsAsked; readonly result: DocumentsView | null };
  readonly file: { readonly asked: FileAsked; readonly result: Uint8Array | null };
  readonly peep: { readonly asked: FileAsked; readonly result: DataPeep | null };
  readonly tables: { readonly asked: PackageAsked; readonly result: readonly FileTable[] };
  readonly rubricTable: { readonly asked: RubricTableAsked; readonly result: TableReading };
  readonly listRubrics: { readonly asked: null; readonly result: readonly ListedRubric[] };
  readonly rubricThere: { readonly asked: RubricAsked; readonly result: ShownRubric | null };
  readonly rubricFile: {
    readonly asked: RubricFileAsked;
    readonly result: { readonly bytes: Uint8Array; readonly title: string } | null;
  };
  readonly room: { readonly asked: PackageAsked; readonly result: SeenPackage | null };
  readonly roomText: { readonly asked: PackageAsked; readonly result: string | null };
  readonly contents: { readonly asked: ContentsAsked; readonly result: ContentsShown };
  readonly contentsList: { readonly asked: ListAsked; readonly result: ContentsList };
  readonly contentsItems: { readonly asked: ItemsAsked; readonly result: ItemPage };
  readonly links: { readonly asked: PackageAsked; readonly result: LinkLine[] | null };
  readonly names: { readonly asked: NamesAsked; readonly result: string[] };
  readonly repairs: { readonly asked: RepairsAsked; readonly result: readonly Edit[] | null };
  readonly quizHead: { readonly asked: HeadAsked; readonly result: Omit<QuizHead, 'made'> | null };
  readonly bankCounts: { readonly asked: PackageAsked; readonly result: readonly Counted[] };
  readonly bankItems: { readonly asked: BankAt; readonly result: readonly string[] };
  readonly item: { readonly asked: ItemAsked; readonly result: string | null };
  readonly itemWhole: { readonly asked: WholeAsked; readonly result: string | null };
  readonly itemScore: { readonly asked: ScoreAsked; readonly result: ItemScore | null };
  readonly rubricsThere: { readonly asked: RubricsAsked; readonly result: readonly Rubric[] };
  readonly plan: { readonly asked: PlanInput; readonly result: PlanResult };
  readonly write: { readonly asked: WriteInput; readonly result: WriteResult };
  readonly attach: { readonly asked: ArrivalInput; readonly result: AttachResult };
  readonly compare: { readonly asked: CompareInput; readonly result: ArrivalResult };
  readonly bothSides: { readonly asked: BothAsked; readonly result: BothView };
  readonly quizSet: { readonly asked: QuizAsked; readonly result: SetView };
  readonly quizSit: { readonly asked: SitAsked; readonly result: SatView };
  readonly quizDraws: { readonly asked: QuizAsked; readonly result: FairView };
  readonly quizVersions: { readonly asked: VersionsAsked; readonly result: VersionsView };
  readonly quizPaper: { readonly asked: PaperAsked; readonly result: Made };
  readonly madeShelf: { readonly asked: ShelfAsked; readonly result: ShelfView | null };
  readonly madeWeigh: { readonly asked: DraftAsked<QuizDraft>; readonly result: MakerView };
  readonly madeCarry: { readonly asked: CarryAsked; readonly result: QuizDraft };
  readonly madeWrite: { readonly asked: DraftAsked; readonly result: SetDown };
  readonly madeBank: { readonly asked: DraftAsked; readonly result: OwnBankView };
  readonly sheetRows: { readonly asked: RowsAsked; readonly result: string };
  readonly sheetCells: { readonly asked: CellsAsked; readonly result: CellsDone };
  readonly sheetFind: { readonly asked: FindAsked; readonly result: FindDone };
  readonly sheetTable: { readonly asked: TableAsked; readonly result: Uint8Array };
  readonly sheetDiffer: { readonly asked: DifferAsked; readonly result: DifferDone };
}
export type OrderKind = keyof Orders;

export interface Order<K extends OrderKind = OrderKind> {
  readonly kind: K;
  readonly asked: Orders[K]['asked'];
  /** The job it is done for: what it writes is refused once that is another's. */
  readonly by?: JobOwner;
}

/** An order as it is given to a thread. */
export interface Asked<K extends OrderKind = OrderKind> {
  readonly order: Order<K>;
  /** Where the thread tells how far it is. */
  readonly port: MessagePort;
  /** What a gate shares: it is closed before the thread is ended. */
  readonly gate: SharedArrayBuffer;
}

/** A file that cannot be read is an outcome, not an error. */
export type Outcome<K extends OrderKind = OrderKind> =
  | { readonly ok: true; readonly result: Orders[K]['result'] }
  | { readonly ok: false; readonly failure: Finding };

export interface ProgressMessage {
  readonly step: string;
  readonly done: number;
  readonly total: number;
}
