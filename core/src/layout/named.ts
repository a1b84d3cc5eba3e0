import { readCounter } from '../document/counters.ts';
import { kindOf, labelsOf } from './labels.ts';
import { partText, type RawItem } from './raw.ts';
import { AND, truthOf } from './words.ts';

/** The choices that a value names: `b`, `B and D`, `(2)`, `b. Port`, or the words of one. */
export interface Named {
  /** Places of choices from 0, in the value's order. */
  readonly choices: readonly number[];
  /** What follows the name, where it is no part of it: an explanation. */
  readonly rest: string;
  /** Whether it can be meant in no other way. */
  readonly sure: boolean;
}

/** What names a choice is no longer than this; of longer choices the start is compared. */
const LONGEST = 2000;
const fold = (text: string): string =>
  text
    .slice(0, LONGEST)
    .normalize('NFKC')
    .toLowerCase()
    .replace(/\s+/gu, ' ')
    .replace(/(?<![ .。])[ .。]+$/u, '')
    .trim();

/** The choices a value names; null where it names none. */
export function namedChoices(value: string, item: Pick<RawItem, 'choices'>): Named | null {
  const { choices } = item;
  const given = withoutPrefix(value.trim().slice(0, LONGEST).replace(/\s+/gu, ' '), item);
  if (given === '' || choices.length === 0) return null;
  const texts = choices.map((c) => fold(partText(c.parts)));
  const byText = texts.flatMap((t, at) => (t !== '' && t === fold(given) ? [at] : []));
  const byLabel = labelled(given, item);
  if (byLabel !== null) {
    // "A" may be the label of one choice and the words of another.
    const other = byText.length > 0 && byText[0] !== byLabel[0];
    return { choices: byLabel, rest: '', sure: !other };
  }
  if (byText.length > 0) return { choices: byText.slice(0, 1), rest: '', sure: byText.length === 1 };
  const both = labelAndText(given, texts, item);
  if (both) return both;
  const truth = truthOf(given);
  const truths = choices.map((c) => truthOf(partText(c.parts)));
  const at = truth === null ? -1 : truths.indexOf(truth);
  if (at >= 0 && truths.filter((t) => t === truth).length === 1)
    return { choices: [at], rest: '', sure: true };
  const several = given.split(AND).map((part) => texts.indexOf(fold(part)));
  if (several.length > 1 && several.every((n) => n >= 0) && new Set(several).size === several.length)
    return { choices: several, rest: '', sure: true };
  return null;
}

/** "Option 2", where choices are labelled so: the number is what names one. */
function withoutPrefix(given: string, { choices }: Pick<RawItem, 'choices'>): string {
  const prefix = /^(\p{L}+) /u.exec(choices[0]?.label?.shape ?? '')?.[1]?.toLowerCase();
  return prefix !== undefined && given.toLowerCase().startsWith(`${prefix} `)
    ? given.slice(prefix.length + 1)
    : given;
}

/** Values that are labels and nothing else. */
function labelled(given: string, item: Pick<RawItem, 'choices'>): number[] | null {
  const bare = given.replace(/[.。]$/u, '');
  // By signs first: "e" is a label here, and a word for "and" elsewhere.
  for (const between of [SIGNS, AND]) {
    const parts = bare
      .split(between)
      .flatMap((p) => p.split(/\s+/u))
      .filter((p) => p !== '');
    const places = parts.map((p) => placeOf(p, item));
    if (places.every((p) => p !== null)) return distinct(places as number[]);
  }
  // "BD": capitals run together.
  if (/^\p{Lu}{2,8}$/u.test(bare)) {
    const each = [...bare].map((c) => placeOf(c, item));
    if (each.every((p) => p !== null)) return distinct(each as number[]);
  }
  return null;
}
const SIGNS = /[\s,;&+/،、]+/u;
const distinct = (places: number[]): number[] | null =>
  places.length > 0 && new Set(places).size === places.length ? places : null;

/** The place of the choice that a label speaks of; capitals and small letters, bracketed or not, are the same. */
function placeOf(text: string, { choices }: Pick<RawItem, 'choices'>): number | null {
  const inner = text.replace(/^[([{]+|(?<![)\]}.:])[)\]}.:]+$/gu, '');
  const counters = readCounter(inner);
  const label = choices[0]?.label;
  for (const { kind, ordinal } of counters) {
    if (ordinal < 1 || ordinal > choices.length) continue;
    const same = label && label.ordinal > 0 ? kindOf(label.shape) : null;
    if (same === null ? kind !== 'i' && kind !== 'I' : same.toLowerCase() === kind.toLowerCase())
      return ordinal - 1;
  }
  return null;
}

/** `b. Port`, `b) because it stands to port`: a label, and then words of it or words about it. */
function labelAndText(given: string, texts: readonly string[], item: Pick<RawItem, 'choices'>): Named | null {
  for (const label of labelsOf(given)) {
    const at = placeOf(given.slice(0, label.length).trim(), item);
    if (at === null || label.ordinal === 0) continue;
    const rest = given.slice(label.length).trim();
    const agrees = fold(rest) === texts[at] || rest === '';
    const other = texts.indexOf(fold(rest));
    if (other >= 0 && !agrees) return { choices: [at], rest: '', sure: false };
    return { choices: [at], rest: agrees ? '' : rest, sure: true };
  }
  const spaced = /^[([]?([\p{L}\p{Nd}]{1,2})[)\]]?\s*[–—:-]\s*(\S.*)$/su.exec(given);
  const at = spaced ? placeOf(spaced[1]!, item) : null;
  if (at === null) return null;
  const rest = spaced![2]!.trim();
  return { choices: [at], rest: fold(rest) === texts[at] ? '' : rest, sure: true };
}
