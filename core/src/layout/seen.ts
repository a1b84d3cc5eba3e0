import type { Block } from '../document/block.ts';
import { contentOfRuns, trimRuns } from '../document/runs.ts';
import type { ContentNode } from '../model/content.ts';
import { amountForms } from './amounts.ts';
import { shapesMet } from './hypotheses.ts';
import type { Built } from './items/document.ts';
import { tableOf } from './items/content.ts';
import { looksOf } from './known.ts';
import { NONE, sayKey } from './layout.ts';
import type { Line } from './lines.ts';
import { linesOf } from './lines.ts';
import { linesOfItem, partText, PLAIN_CHOICES } from './raw.ts';
import { recogniseDocument, type Recognised } from './recognise.ts';
import type { Role } from './words.ts';

/** What a person is shown of how a document was understood: every block with what became of it, and what else it may be. */

/** `item`: it is in one. `answers`: in a list of keys. `unread`: nobody understood it. */
export type UseOfBlock = 'item' | 'heading' | 'passage' | 'answers' | 'aside' | 'unread';

export interface BlockSeen {
  readonly n: number;
  readonly page: number | null;
  /** The label that is shown before it. */
  readonly label: string;
  readonly level: number;
  readonly heading: number;
  readonly content: readonly ContentNode[];
  readonly as: UseOfBlock;
  /** The item it is in, by id. */
  readonly item: string | null;
}

const contentOf = (block: Block): ContentNode[] =>
  block.kind === 'table' ? [tableOf(block)] : contentOfRuns(trimRuns(block.runs));

/** Every block of a document with what became of it. */
export function blocksSeen(recognised: Recognised, built: Built): BlockSeen[] {
  const uses = usesOf(recognised, built);
  let last: Use = TITLE;
  return recognised.document.blocks.map((block) => {
    // A label whose value stands below it is a part of what is around it.
    const use = uses.get(block.n) ?? (last.as === 'item' ? last : TITLE);
    last = use;
    const shown = block.kind === 'table' ? { label: '', level: 0, heading: 0 } : block;
    return {
      n: block.n,
      page: block.page,
      label: shown.label,
      level: shown.level,
      heading: shown.heading,
      content: contentOf(block),
      ...use,
    };
  });
}

interface Use {
  readonly as: UseOfBlock;
  readonly item: string | null;
}
const TITLE: Use = { as: 'heading', item: null };

function usesOf({ items, between, listed, aside, loose }: Recognised, { ids }: Built): Map<number, Use> {
  const uses = new Map<number, Use>();
  const all = (lines: readonly Line[], as: UseOfBlock): void => {
    for (const line of lines) uses.set(line.block, { as, item: null });
  };
  all(loose, 'unread');
  all(aside, 'aside');
  all(listed, 'answers');
  all(
    between.headings.map((h) => h.line),
    'heading',
  );
  for (const { passage } of between.placed) if (passage) all(passage.lines, 'passage');
  for (const item of items)
    for (const line of linesOfItem(item)) uses.set(line.block, { as: 'item', item: ids.get(item) ?? null });
  return uses;
}

/** What each part of a layout can be, by what occurs in the document. */
export interface LayoutChoices {
  /** What a table's columns are called, and what they say; null for a document. */
  readonly columns: Recognised['columns'];
  readonly question: readonly string[];
  readonly choice: readonly string[];
  readonly key: readonly string[];
  readonly points: readonly string[];
  /** Labelled lines, with the first values they have. */
  readonly labels: readonly {
    readonly name: string;
    readonly role: Role;
    readonly count: number;
    readonly values: readonly string[];
  }[];
}

const once = (list: readonly string[]): string[] => [...new Set(list)];
const FEW = 3;

export function layoutChoices(recognised: Recognised): LayoutChoices {
  const { document, layout, items, evidence, roles, lists } = recognised;
  const isTable = recognised.columns !== null;
  const shapes = isTable ? { questions: [], choices: [] } : shapesMet(linesOf(document));
  const fields = items.flatMap((i) => i.fields).filter((f) => f.role === undefined);
  return {
    columns: recognised.columns,
    question: once([layout.question, ...shapes.questions, NONE]),
    choice: once([layout.choice, ...shapes.choices, PLAIN_CHOICES, NONE]),
    key: once([
      layout.key,
      ...evidence.map((e) => sayKey(e.source)),
      ...[...roles.values()].map((r) => `line ${r.name}`),
      ...(lists.length > 0 ? ['list'] : []),
      NONE,
    ]),
    points: once([...(layout.points === null ? [] : [layout.points]), ...amountForms(items)]),
    labels: [...roles].map(([folded, { name, role }]) => {
      const values = fields.filter((f) => f.folded === folded).map((f) => partText(f.parts));
      return {
        name,
        role,
        count: values.length,
        values: once(values.map((v) => v.replace(/\s+/gu, ' ').slice(0, 60))).slice(0, FEW),
      };
    }),
  };
}

/** What a document looks like when nothing is known of it: by that a confirmed layout is remembered. */
export const looksOfDocument = ({ looks, document }: Recognised): string[] =>
  looks === null ? looksOf(recogniseDocument(document).layout) : [...looks];
