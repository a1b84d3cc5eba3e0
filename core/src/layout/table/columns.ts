import { readAmount } from '../amounts.ts';
import { namedChoices } from '../named.ts';
import type { RawChoice } from '../raw.ts';
import { roleOfWord, truthOf, type Role } from '../words.ts';

/** What each column of a table of questions says, by its header in any language and by its values. */

/** A column's role: of the question itself, of one of its choices, or what a labelled line would say. */
export type ColumnRole = 'question' | 'choice' | 'correct' | Role;

export interface TableColumns {
  /** The row that names the columns, from 0; -1 where none does. */
  readonly headerRow: number;
  readonly header: readonly string[];
  readonly roles: readonly ColumnRole[];
  /** A row a choice: what is right is said in the row. */
  readonly long: boolean;
  /** 0 to 1. */
  readonly sure: number;
}

type Rows = readonly (readonly string[])[];

const fold = (cell: string): string =>
  cell
    .normalize('NFKC')
    .replace(/^\uFEFF/u, '')
    .toLowerCase()
    .replace(/[_\s]+/gu, ' ')
    .replace(/(?<![:：.?*])[:：.?*]+$/u, '')
    .trim();

const words = (...parts: string[]): string => `(?:${parts.join('|')})`;
const QUESTION_WORDS = words(
  'question|questions|question text|question stem|stem|item|item text|prompt|text|pregunta',
  'preguntas|enunciado|texto|frage|fragen|fragetext|aufgabe|questions?|énoncé|intitulé',
  'questão|pergunta|domanda|вопрос|текст вопроса|السؤال|نص السؤال|問題|問題文|設問|题目|问题|题干|문제',
  'vraag|שאלה',
);
const QUESTION = new RegExp(`^${QUESTION_WORDS}$`, 'u');
const CHOICE_WORDS = words(
  'option|choice|answer|distractor|alternative|opción|opcion|respuesta|alternativa|antwort',
  'auswahl|option|réponse|reponse|choix|opção|opcao|resposta|opzione|risposta|вариант|ответ',
  'خيار|الخيار|選択肢|选项|선택|optie|תשובה|אפשרות',
);
const CHOICE = new RegExp(
  `^(?:${CHOICE_WORDS}[ -]?)?(?:text )?([1-9]|[a-j]|[а-и]|[أابجده]|[א-ו]|[ア-オ])$`,
  'u',
);
/** A column of choices in a table that has a row for each. */
const ONE_CHOICE_WORDS = words(
  'choices?|options?|choice text|option text|answer text|alternatives?|distractors?|opción',
  'opciones|alternativa|auswahl|antwortmöglichkeit|choix|proposition|opção|opzione|вариант',
  'варианты|خيار|الخيار|الخيارات|選択肢|选项|선택지|optie|אפשרות',
);
const ONE_CHOICE = new RegExp(`^${ONE_CHOICE_WORDS}$`, 'u');
const CORRECT_WORDS = words(
  'correct|right|is correct|is right|key|true|correcta|correcto|es correcta|richtig',
  'ist richtig|korrekt|correcte|juste|bonne|correto|certa|corretta|верно|правильно|صحيح',
  'صحيحة|正解|正誤|正确|정답|juist|נכון',
);
const CORRECT = new RegExp(`^${CORRECT_WORDS}\\s?\\??$`, 'u');
const KEY_WORDS = new RegExp(
  words(
    'correct|right|key|richtig|korrekt|correct[ao]|clave|bonne|juste|correcte|gabarito',
    'corrett[ao]|правильн|верн|صحيح|مفتاح|正解|解答|正确|정답|juist|נכונ',
  ),
  'u',
);
const NUMBER =
  /^(?:#|no|nr|num|number|n|id|q|item id|question id|question number|número|nummer|numéro|номер|رقم|番号|№)$/u;
const BANK_WORDS = words(
  'bank|question bank|chapter|unit|lesson|banco|capítulo|capitulo|unidad|kapitel|einheit',
  'chapitre|unité|unidade|capitolo|глава|раздел|الفصل|الوحدة|章|単元|章节',
);
const BANK = new RegExp(`^${BANK_WORDS}$`, 'u');

/** The role a header's cell speaks for; null where it is not known. */
function roleOfHeader(cell: string): ColumnRole | null {
  const folded = fold(cell);
  if (folded === '') return null;
  if (QUESTION.test(folded)) return 'question';
  if (CHOICE.test(folded)) return 'choice';
  if (NUMBER.test(folded)) return 'number';
  if (BANK.test(folded)) return 'bank';
  const role = roleOfWord(folded);
  if (role !== null && role !== 'key') return role;
  if (KEY_WORDS.test(folded) || role === 'key') return 'key';
  const [last, first] = [folded.split(' ').at(-1)!, folded.split(' ')[0]!];
  return roleOfWord(last) ?? roleOfWord(first);
}

const HEADER_WITHIN = 10;
/** So many rows are looked at to tell the columns. */
const LOOKED_AT = 400;

/** The columns of a table of questions; null where it holds none. */
export function questionColumns(rows: Rows): TableColumns | null {
  const count = Math.min(200, Math.max(0, ...rows.slice(0, LOOKED_AT).map((r) => r.length)));
  if (count < 2) return null;
  const named = rows.slice(0, HEADER_WITHIN).findIndex((r) => {
    const roles = r.map(roleOfHeader);
    return roles.includes('question') && roles.filter((x) => x !== null).length >= 2;
  });
  if (named >= 0) return byHeader(rows, named, count);
  return byValues(rows, count);
}

const body = (rows: Rows, headerRow: number): Rows =>
  rows.slice(headerRow + 1, headerRow + 1 + LOOKED_AT).filter((r) => r.some((c) => c.trim() !== ''));

function byHeader(rows: Rows, headerRow: number, count: number): TableColumns | null {
  const header = Array.from({ length: count }, (_, n) => rows[headerRow]![n] ?? '');
  const roles = header.map((cell): ColumnRole => roleOfHeader(cell) ?? 'noted');
  const lines = body(rows, headerRow);
  const values = (n: number): string[] => lines.map((r) => (r[n] ?? '').trim());
  // Empty columns say nothing, whatever they are called.
  for (let n = 0; n < count; n++)
    if (roles[n] !== 'question' && values(n).every((v) => v === '')) roles[n] = 'skip';
  onlyOnce(roles, 'question');
  const choices = roles.flatMap((r, n) => (r === 'choice' ? [n] : []));
  const flag = header.findIndex((cell, n) => n < count && CORRECT.test(fold(cell)) && isFlag(values(n)));
  const single = header.findIndex((cell) => ONE_CHOICE.test(fold(cell)));
  const spoken =
    single >= 0
      ? single
      : header.findIndex((cell, n) => roles[n] === 'key' && !CORRECT.test(fold(cell)) && n !== flag);
  if (choices.length < 2 && flag >= 0 && (choices.length === 1 || spoken >= 0)) {
    const at = choices[0] ?? spoken;
    return {
      headerRow,
      header,
      roles: roles.map((r, n): ColumnRole =>
        n === at ? 'choice' : n === flag ? 'correct' : r === 'key' ? 'noted' : r,
      ),
      long: true,
      sure: 1,
    };
  }
  settleKey(roles, lines, choices);
  return { headerRow, header, roles, long: false, sure: 1 };
}

/** Of several columns that may be the key, the one whose values name choices. */
function settleKey(roles: ColumnRole[], lines: Rows, choices: readonly number[]): void {
  const keys = roles.flatMap((r, n) => (r === 'key' ? [n] : []));
  if (keys.length < 2) return;
  const best = [...keys].sort(
    (a, b) => namesChoices(lines, choices, b) - namesChoices(lines, choices, a),
  )[0]!;
  for (const n of keys) if (n !== best) roles[n] = 'noted';
}

function onlyOnce(roles: ColumnRole[], role: ColumnRole): void {
  const first = roles.indexOf(role);
  for (let n = first + 1; n < roles.length; n++) if (roles[n] === role) roles[n] = 'noted';
}

const FLAGS = /^(?:x|✓|✔|\*|1|0|-|true|false|yes|no|y|n|t|f|)$/iu;
/** Whether values only say yes or no. */
const isFlag = (values: readonly string[]): boolean =>
  values.some((v) => isYes(v)) &&
  values.some((v) => !isYes(v)) &&
  values.every((v) => FLAGS.test(v) || truthOf(v) !== null);
export const isYes = (value: string): boolean =>
  /^(?:x|✓|✔|\*|1)$/iu.test(value.trim()) || truthOf(value) === true || /^y$/iu.test(value.trim());

/** The share of rows in which a column names one of the choices. */
function namesChoices(lines: Rows, choices: readonly number[], column: number): number {
  const filled = lines.filter((r) => (r[column] ?? '').trim() !== '');
  const named = filled.filter((r) => namedChoices(r[column]!, { choices: choicesOf(r, choices) }) !== null);
  return named.length / Math.max(1, filled.length);
}

const choicesOf = (row: readonly string[], columns: readonly number[]): RawChoice[] =>
  columns
    .filter((n) => (row[n] ?? '').trim() !== '')
    .map((n) => ({
      label: null,
      sign: '',
      parts: [
        {
          line: { table: null } as never,
          runs: [{ kind: 'text', text: row[n]!.trim() } as never],
          joins: false,
        },
      ],
    }));

/**
 * Without a header that is understood: the question is the longest text that is not said twice, choices stand
 * together behind it, and the key names one of them.
 */
function byValues(rows: Rows, count: number): TableColumns | null {
  const lines = body(rows, -1);
  if (lines.length < 3) return null;
  const facts = Array.from({ length: count }, (_, n) =>
    factsOf(lines.slice(1).map((r) => (r[n] ?? '').trim())),
  );
  const texts = facts.flatMap((f, n) => (f.filled >= 0.6 && !f.numeric ? [n] : []));
  const question = [...texts].sort(
    (a, b) => facts[b]!.asks - facts[a]!.asks || facts[b]!.length - facts[a]!.length,
  )[0];
  if (question === undefined || facts[question]!.distinct < 0.8 || facts[question]!.length < 8) return null;
  for (let first = question + 1; first < count - 1; first++) {
    for (let last = Math.min(count - 1, first + 9); last > first; last--) {
      const choices = Array.from({ length: last - first + 1 }, (_, n) => first + n);
      if (!choices.every((n, at) => facts[n]!.filled > (at < 2 ? 0.6 : 0.2))) continue;
      const key = Array.from({ length: count }, (_, n) => n).find(
        (n) =>
          n !== question &&
          !choices.includes(n) &&
          // 1, 2, 3 counts the rows, though each of them names a choice as well.
          !facts[n]!.running &&
          facts[n]!.filled > 0.6 &&
          namesChoices(lines.slice(1), choices, n) >= 0.8,
      );
      if (key === undefined) continue;
      return found(rows, lines, question, choices, key, facts);
    }
  }
  return null;
}

function found(
  rows: Rows,
  lines: Rows,
  question: number,
  choices: readonly number[],
  key: number,
  facts: readonly Facts[],
): TableColumns {
  // The first row names columns where what stands in the key's place names none of its choices.
  const named =
    namedChoices((lines[0]![key] ?? '').trim(), { choices: choicesOf(lines[0]!, choices) }) === null;
  const headerRow = named ? rows.findIndex((r) => r.some((c) => c.trim() !== '')) : -1;
  const header = Array.from({ length: facts.length }, (_, n) =>
    headerRow >= 0 ? (rows[headerRow]![n] ?? '') : '',
  );
  const roles = facts.map((f, n): ColumnRole => {
    if (n === question) return 'question';
    if (choices.includes(n)) return 'choice';
    if (n === key) return 'key';
    const said = roleOfHeader(header[n]!);
    if (said !== null && said !== 'question' && said !== 'choice' && said !== 'key') return said;
    if (f.filled === 0) return 'skip';
    return f.running ? 'number' : f.length > 40 && f.distinct > 0.6 ? 'rationale' : 'noted';
  });
  return { headerRow, header, roles, long: false, sure: 0.8 };
}

interface Facts {
  readonly filled: number;
  readonly distinct: number;
  readonly length: number;
  readonly numeric: boolean;
  /** 1, 2, 3 … */
  readonly running: boolean;
  /** The share that ask or leave a blank. */
  readonly asks: number;
}

function factsOf(values: readonly string[]): Facts {
  const filled = values.filter((v) => v !== '');
  return {
    filled: filled.length / Math.max(1, values.length),
    distinct: new Set(filled).size / Math.max(1, filled.length),
    length: filled.reduce((sum, v) => sum + v.length, 0) / Math.max(1, filled.length),
    numeric: filled.length > 0 && filled.every((v) => readAmount(v) !== null),
    running: filled.length > 1 && filled.every((v, at) => Number(v) === Number(filled[0]) + at),
    asks: filled.filter((v) => /[?？؟]$|_{2,}/u.test(v)).length / Math.max(1, filled.length),
  };
}
