import Papa from 'papaparse';
import { compareHoldings } from '../compare/compare.ts';
import type { Facet } from '../compare/types.ts';
import type { Platform } from '../intake/platform.ts';
import { finding, type Finding } from '../model/finding.ts';
import type { Holding, Item } from '../model/holding.ts';
import { interactionsOf } from '../model/visit.ts';
import type { ReadFile } from '../paper/pictures.ts';
import { readHolding } from '../reading/read.ts';
import { bankDocx } from './docx.ts';
import { banksOf, saidFields } from './banks.ts';
import { canSay, canSayInTable } from './say.ts';
import type { BankTarget } from './targets.ts';
import { bankRows } from './table.ts';
import { bankText } from './text.ts';

/**
 * Writes what a holding asks as a document or a table. What was written is read again at once: whatever comes
 * back otherwise than it was is named, so that nothing is lost in silence.
 */
export async function writeBankFile(
  holding: Holding,
  target: BankTarget,
  read: ReadFile,
  platform: Platform,
): Promise<{ bytes: Uint8Array; findings: readonly Finding[] }> {
  const says = target === 'csv' || target === 'xlsx' ? canSayInTable : canSay;
  const findings: Finding[] = holding.items
    .filter((i) => !says(i))
    .map((i) => finding('loss-kind', 'warning', { node: i.id }, { what: kindsOf(i) }));
  findings.push(...fieldLosses(holding));
  if (shuffles(holding))
    findings.push(
      finding(
        'loss-settings',
        'note',
        {},
        { what: 'choices in another order for everybody', setting: 'shuffleChoices' },
      ),
    );
  for (const quiz of holding.quizzes) findings.push(...quizLosses(quiz));
  const asked = holding.items.filter(says);
  if (asked.length === 0)
    return {
      bytes: new Uint8Array(),
      findings: [finding('questions-none', 'error', { path: holding.source.name })],
    };
  const banks = banksOf(holding, says);
  const title = banks.length === 1 ? banks[0]!.title : holding.title;
  const encode = (text: string): Uint8Array => new TextEncoder().encode(text);
  const bytes = await written();
  const back = await readHolding(`back.${target === 'text' ? 'txt' : target}`, bytes, platform);
  return {
    bytes,
    findings: [...findings, ...differences({ ...holding, items: asked, quizzes: [], banks: [] }, back)],
  };

  async function written(): Promise<Uint8Array> {
    switch (target) {
      case 'docx':
        return bankDocx(title, banks, asked.find((i) => i.language !== null)?.language ?? null, read);
      case 'text':
        return encode(bankText(title, banks));
      case 'csv':
        // The mark tells spreadsheets that it is UTF-8.
        return encode(`\uFEFF${Papa.unparse(bankRows(banks), { newline: '\r\n' })}\r\n`);
      case 'xlsx':
        return platform.writeSheet(sheetName(title), bankRows(banks));
    }
  }
}

/** What a workbook allows as the name of a sheet (ECMA-376: 31 characters, some signs not). */
const sheetName = (title: string): string =>
  title
    .replace(/[\\/?*[\]:]/gu, ' ')
    .slice(0, 31)
    .trim() || 'Questions';

const kindsOf = (item: Item): string =>
  item.templates.length > 0
    ? 'a question with parameters'
    : [...new Set(interactionsOf(item).map((i) => i.kind))].join(', ') || 'nothing is asked';

const shuffles = ({ items }: Holding): boolean =>
  items.some((i) => interactionsOf(i).some((n) => (n.kind === 'choice' || n.kind === 'match') && n.shuffle));

function fieldLosses(holding: Holding): Finding[] {
  const said = saidFields(holding);
  const lost = new Set(
    holding.items.flatMap((i) => i.metadata.map((f) => f.label)).filter((l) => !said.has(l)),
  );
  return lost.size === 0 ? [] : [finding('loss-metadata', 'note', {}, { what: [...lost].join(', ') })];
}

function quizLosses({ id, sections, settings }: Holding['quizzes'][number]): Finding[] {
  const where = { node: id };
  const set = Object.entries(settings)
    .filter(([, v]) => v !== null)
    .map(([name]) => name);
  return [
    ...sections
      .filter((s) => s.draw)
      .map((s) =>
        finding('loss-draw', 'warning', where, { what: `${s.title || 'a section'} draws ${s.draw!.pick}` }),
      ),
    ...(set.length > 0
      ? [finding('loss-settings', 'warning', where, { what: set.join(', '), setting: set[0]! })]
      : []),
  ];
}

const CODES: Readonly<
  Partial<Record<Facet, 'loss-kind' | 'loss-scoring' | 'loss-feedback' | 'loss-metadata'>>
> = {
  kind: 'loss-kind',
  key: 'loss-scoring',
  points: 'loss-scoring',
  scoring: 'loss-scoring',
  tolerance: 'loss-scoring',
  'case-sensitivity': 'loss-scoring',
  feedback: 'loss-feedback',
};
/** A document has no place for a name, and nothing in it is shuffled. */
const UNSAID: ReadonlySet<Facet> = new Set(['title', 'shuffle']);

function differences(source: Holding, back: Holding): Finding[] {
  const { pairs, missing } = compareHoldings(source, back);
  return [
    ...missing.map((m) =>
      finding(
        'loss-kind',
        'warning',
        { node: m.id },
        { what: 'it cannot be told apart from what stands around it' },
      ),
    ),
    ...pairs.flatMap((pair) => {
      const byCode = new Map<NonNullable<(typeof CODES)[Facet]>, string[]>();
      for (const { facet } of pair.differences) {
        if (UNSAID.has(facet)) continue;
        const code = CODES[facet] ?? 'loss-metadata';
        byCode.set(code, [...(byCode.get(code) ?? []), facet]);
      }
      return [...byCode].map(([code, facets]) =>
        finding(code, 'warning', { node: pair.source }, { what: facets.join(', ') }),
      );
    }),
  ];
}
