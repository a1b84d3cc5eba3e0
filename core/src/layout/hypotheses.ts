import { fieldsOf, foldField, nameAt, namesIn } from './fields.ts';
import { readCounter } from '../document/counters.ts';
import { isNamed, isNumbered, kindOf, labelText } from './labels.ts';
import type { Line } from './lines.ts';
import { PLAIN_CHOICES, type Cut } from './raw.ts';
import { roleOfWord } from './words.ts';

/** The ways a document may be cut, by what recurs in it: each is tried whole. */

/** So many shapes of labels are tried for questions and for choices, the most frequent first. */
const MOST_SHAPES = 4;

/** Every hypothesis worth trying on these lines. */
export function hypotheses(lines: readonly Line[], wraps: boolean): Cut[] {
  const met = shapesIn(lines);
  const questions: (string | null)[] = questionShapes(met);
  const choices = choiceShapes(met);
  const fields = fieldNames(lines, questions);
  const out: Cut[] = [];
  for (const question of [...questions, null]) {
    const others = choices.filter((s) => s !== question);
    const sets = [[], ...others.map((s) => [s]), ...pairs(others), [PLAIN_CHOICES]];
    for (const set of sets) {
      if (question === null && set.length === 0) continue;
      // The same label for both is told apart by where counting begins again.
      for (const byLevel of question !== null && differInLevel(lines, question) ? [true, false] : [false])
        out.push({
          question,
          choices: set,
          fields,
          fieldsLead: leads(lines, fields, question),
          wraps,
          byLevel,
        });
    }
    if (question !== null && isNumbered(question) && choices.includes(question))
      out.push({ question, choices: [question], fields, fieldsLead: false, wraps, byLevel: false });
  }
  return out;
}

/** The labels that questions and choices may have here, the likeliest first. */
export function shapesMet(lines: readonly Line[]): { questions: string[]; choices: string[] } {
  const met = shapesIn(lines);
  return { questions: questionShapes(met), choices: choiceShapes(met) };
}

interface Met {
  readonly shape: string;
  count: number;
  /** How often it is 1, and how often it is one more than the last time. */
  ones: number;
  steps: number;
  last: number;
}

function shapesIn(lines: readonly Line[]): Met[] {
  const met = new Map<string, Met>();
  for (const { labels } of lines)
    for (const { shape, ordinal } of labels) {
      const entry = met.get(shape) ?? { shape, count: 0, ones: 0, steps: 0, last: 0 };
      entry.count += 1;
      if (ordinal === 1) entry.ones += 1;
      if (ordinal === entry.last + 1) entry.steps += 1;
      entry.last = ordinal;
      met.set(shape, entry);
    }
  for (const { text } of lines) for (const shape of inlineShapes(text)) countInline(met, shape);
  return [...met.values()];
}

/** Labels of a second choice within a line, where the first stands before it: `a) port b) starboard`. */
function inlineShapes(text: string): string[] {
  const out: string[] = [];
  for (const found of text.matchAll(SECOND)) {
    const [, open = '', counter = '', closing = ''] = found;
    for (const { kind, ordinal } of readCounter(counter)) {
      const shape = `${open}${kind}${closing}`;
      const first = text.indexOf(labelText(shape, 1));
      if (ordinal === 2 && kind !== '1' && first >= 0 && first < found.index) out.push(shape);
    }
  }
  return out;
}
const SECOND = /(?<=[\s;,])[*✓✔√]?([([]?)([bBбБβبבイｲい乙②ⓑ])([.)\]]|\.\))?(?=\s|\S{3})/gu;

function countInline(met: Map<string, Met>, shape: string): void {
  const entry = met.get(shape) ?? { shape, count: 0, ones: 0, steps: 0, last: 0 };
  met.set(shape, { ...entry, count: entry.count + 2, ones: entry.ones + 1, steps: entry.steps + 1, last: 2 });
}

/** Labels that count on: by number first, then by anything that is not begun anew all the time. */
function questionShapes(met: readonly Met[]): string[] {
  return (
    met
      .filter((m) => m.last > 0 || m.count > 1)
      .filter(
        (m) =>
          kindOf(m.shape) === '1' ||
          /^[IA]$/u.test(kindOf(m.shape)) ||
          m.shape.includes(' ') ||
          (isNamed(m.shape) && m.count > 1),
      )
      // A word and a number that are met once are a heading, as long as anything else is counted.
      .filter((m, _, all) => m.count > 1 || !m.shape.includes(' ') || all.length === 1)
      .sort((a, b) => weight(b) - weight(a))
      .slice(0, MOST_SHAPES)
      .map((m) => m.shape)
  );
}
const weight = (m: Met): number =>
  isNamed(m.shape)
    ? m.count
    : m.steps * (kindOf(m.shape) === '1' ? 1 : 0.5) - m.ones * 0.2 + (m.shape.includes(' ') ? 2 : 0);

/** Labels that begin anew again and again, or are not counted at all. */
function choiceShapes(met: readonly Met[]): string[] {
  return (
    met
      // "Option 1:" begins anew with every question, "Chapter 1:" does not.
      .filter((m) => m.count >= 2 && (!m.shape.includes(' ') || (m.ones >= 2 && m.count >= m.ones * 2)))
      .filter((m) => !isNamed(m.shape) && (kindOf(m.shape) === '' || m.ones > 0))
      .sort((a, b) => b.count - a.count)
      .slice(0, MOST_SHAPES)
      .map((m) => m.shape)
  );
}

function pairs(shapes: readonly string[]): string[][] {
  const [a, b, c] = shapes;
  return [a && b ? [a, b] : [], a && c ? [a, c] : []].filter((p) => p.length > 0);
}

function differInLevel(lines: readonly Line[], question: string): boolean {
  const levels = lines.filter((l) => l.labels.some((x) => x.shape === question)).map((l) => l.level);
  return new Set(levels).size > 1;
}

/** Names that recur behind questions, or that are known for what they say. */
function fieldNames(lines: readonly Line[], questions: readonly (string | null)[]): Set<string> {
  const counts = namesIn(lines);
  const asked = Math.max(
    1,
    ...questions.map((q) => lines.filter((l) => l.labels.some((x) => x.shape === q)).length),
  );
  const out = new Set<string>();
  for (const [name, count] of counts) {
    const words = name.split(' ');
    const known =
      roleOfWord(name) ?? (words.length > 1 ? (roleOfWord(words.at(-1)!) ?? roleOfWord(words[0]!)) : null);
    if (known !== null || (count >= 2 && count >= asked * RECURS)) out.add(name);
  }
  for (const name of innerNames(lines, out)) out.add(name);
  return out;
}
const RECURS = 0.15;

/** Further names in the lines of known ones: `Answer: b  Points: 1  Topic: tides`. */
function innerNames(lines: readonly Line[], known: ReadonlySet<string>): string[] {
  const counts = new Map<string, number>();
  for (const { text } of lines) {
    if (fieldsOf(text, known).length === 0) continue;
    for (const found of text.matchAll(/(?<=[\s;,|])(\p{L}[\p{L}\p{M}'’.]{0,20})[ ]?[:：=](?=\s|\p{Nd})/gu)) {
      const name = foldField(found[1]!);
      counts.set(name, (counts.get(name) ?? 0) + 1);
    }
  }
  return [...counts].filter(([name, count]) => count >= 2 || roleOfWord(name) !== null).map(([name]) => name);
}

/** Whether labelled lines stand before their questions: the first one does, and none follows the last question. */
function leads(lines: readonly Line[], fields: ReadonlySet<string>, question: string | null): boolean {
  if (question === null) return false;
  const asks = lines.filter((l) => l.labels.some((x) => x.shape === question));
  const labelled = lines.filter((l) => {
    const name = nameAt(l.text);
    return name !== null && fields.has(name);
  });
  const [firstAsk, lastAsk] = [asks[0]?.at ?? -1, asks.at(-1)?.at ?? -1];
  return labelled.length >= 2 && labelled[0]!.at < firstAsk && labelled.at(-1)!.at < lastAsk;
}
