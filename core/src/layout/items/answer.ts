import { parseNumber } from '../../model/number.ts';
import type { Tolerance } from '../../scoring/shapes.ts';
import { asciiDigits } from '../../document/counters.ts';
import { OR, truthOf } from '../words.ts';

/** What the key of a question without choices is, by what is written there. */
export type Answer =
  | { readonly kind: 'truth'; readonly value: boolean; readonly rest: string }
  | {
      readonly kind: 'number';
      readonly value: number;
      readonly stated: boolean;
      readonly tolerance: Tolerance | null;
      readonly unit: string;
      readonly sure: boolean;
    }
  | { readonly kind: 'texts'; readonly texts: readonly string[]; readonly sure: boolean }
  | { readonly kind: 'essay' };

const N = '[-+−–]?(?:\\p{Nd}+(?:[.,]\\p{Nd}+)?|[.,]\\p{Nd}+)(?:[eE][-+]?\\p{Nd}+)?';
const UNIT = [
  '°|º|′|%|‰|°\\s?[CFKTM]|m|km|cm|mm|nm|NM|M|sm|kn|kt|kts|kg|g|t|h|hr|hrs|min|mins|s|sec|l|L',
  'V|A|W|kW|Hz|kHz|MHz|GHz|Pa|hPa|kPa|mb|mbar|bar|K|ft|in|yd|mi|fm|knots?|miles?',
  'nautical miles?|metres?|meters?|m/s|km/h|mph|degrees?|hours?|minutes?|seconds?|days?',
  'weeks?|months?|years?|nudos?|millas?|metros?|grados?|horas?|minutos?|Knoten|Seemeilen?',
  'Meter|Grad|Stunden?|Minuten?|nœuds?|milles?|mètres?|degrés?|heures?|узл(?:а|ов)|миль|мили',
  'метров|метра|м|км|メートル|海里|ノット|度|時間|分|€|\\$|£',
].join('|');
const WITH_UNIT = `(${N})\\s?(${UNIT})?`;
const PLAIN_NUMBER = new RegExp(`^${WITH_UNIT}[.]?$`, 'u');
const PLUS_MINUS = new RegExp(
  `^${WITH_UNIT}\\s*(?:±|\\+\\s?/\\s?[-−–]|\\+[-−])\\s*(${N})\\s?(%|${UNIT})?[.]?$`,
  'u',
);
const TO = '(?:to|bis|a|à|до|through|and|und|y|et|e|и|إلى|から|~|～|–|—|-|\\.\\.|…)';
const RANGE = new RegExp(
  `^(?:between|from|entre|zwischen|von|de|от|между|da|tra)?\\s*${WITH_UNIT}\\s*(${TO})\\s*${WITH_UNIT}[.]?$`,
  'iu',
);
const WITH_RANGE = new RegExp(
  `^${WITH_UNIT}\\s*[([]\\s*[^()\\[\\]\\d]{0,40}?${WITH_UNIT}\\s*(${TO})\\s*${WITH_UNIT}\\s*[)\\]][.]?$`,
  'iu',
);
const TRUTH = /^[\s("“]*(\p{L}+|[○〇×✕])["”)]?(?:\s*[.,;:–—-]\s*(\S.*)|\s*\((.+)\)|[.\s]*)$/su;

const num = (text: string): number | null => parseNumber(asciiDigits(text).replace(/[−–]/gu, '-'));
const MOST_WORDS = 10;
const MOST_LETTERS = 90;
/** Alternatives of more words are as likely one sentence with "or" in it. */
const SURE_WORDS = 3;

/** Reads a key that names no choice. @param truths whether the question may be one of true and false */
export function readAnswer(value: string, truths: boolean): Answer {
  const given = value.trim().replace(/\s+/gu, ' ');
  const truth = TRUTH.exec(given);
  const is = truth ? truthOf(truth[1]!) : null;
  if (truths && is !== null) return { kind: 'truth', value: is, rest: truth![2] ?? truth![3] ?? '' };
  const number = readNumber(given);
  if (number) return number;
  if (given === '' || given.length > MOST_LETTERS * 2) return { kind: 'essay' };
  const texts = given
    .split(OR)
    .map((t) => t.replace(/^["“”'«]|["“”'».]$/gu, '').trim())
    .filter((t) => t !== '');
  const words = texts.map((t) => t.split(' ').length);
  if (texts.length > 1 && words.every((n) => n <= MOST_WORDS / 2))
    return { kind: 'texts', texts: [...new Set(texts)], sure: words.every((n) => n <= SURE_WORDS) };
  const count = given.split(' ').length;
  if (count > MOST_WORDS || given.length > MOST_LETTERS) return { kind: 'essay' };
  return {
    kind: 'texts',
    texts: [given.replace(/(?<!\.\p{L})[.。]$/u, '')],
    sure: count <= MOST_WORDS / 2 + 1,
  };
}

type NumberAnswer = Extract<Answer, { kind: 'number' }>;

function readNumber(given: string): NumberAnswer | null {
  const plain = PLAIN_NUMBER.exec(given);
  const value = plain ? num(plain[1]!) : null;
  if (plain && value !== null) return number(value, true, null, plain[2] ?? '', true);
  const about = PLUS_MINUS.exec(given);
  if (about) {
    const [middle, by] = [num(about[1]!), num(about[3]!)];
    if (middle === null || by === null) return null;
    const relative = about[4] === '%' && about[2] !== '%';
    const reach = relative ? (Math.abs(middle) * by) / 100 : by;
    return number(
      middle,
      true,
      bounds(middle - reach, middle + reach, relative ? 'relative' : 'absolute'),
      about[2] ?? (relative ? '' : (about[4] ?? '')),
      true,
    );
  }
  const within = WITH_RANGE.exec(given);
  if (within) {
    const [middle, low, high] = [num(within[1]!), num(within[3]!), num(within[6]!)];
    if (middle !== null && low !== null && high !== null && low <= middle && middle <= high)
      return number(middle, true, bounds(low, high, 'range'), within[2] ?? '', true);
  }
  const range = RANGE.exec(given);
  if (range) {
    const [low, high] = [num(range[1]!), num(range[4]!)];
    // "5-7" may be a name or a date; "5 to 7" and "4.9-5.1" are not.
    const dashed = /^[-–—]$/u.test(range[3]!) && !/[.,]/u.test(given);
    if (low !== null && high !== null && low < high)
      return number((low + high) / 2, false, bounds(low, high, 'range'), range[5] ?? range[2] ?? '', !dashed);
  }
  return null;
}

const number = (
  value: number,
  stated: boolean,
  tolerance: Tolerance | null,
  unit: string,
  sure: boolean,
): NumberAnswer => ({ kind: 'number', value, stated, tolerance, unit: unit.trim(), sure });

const clean = (n: number): number => Number(n.toPrecision(12));
const bounds = (low: number, high: number, mode: Tolerance['mode']): Tolerance => ({
  mode,
  low: clean(low),
  high: clean(high),
  includesLow: true,
  includesHigh: true,
});

/** A tolerance that stands on a line of its own: `0.5`, `± 2 %`, `41.9 to 42.0`. */
export function withTolerance(answer: Answer, said: string): Answer {
  if (answer.kind !== 'number') return answer;
  const alone = readNumber(`${answer.value} ± ${said.replace(/^\s*(?:±|\+\/?-)\s*/u, '')}`);
  if (alone) return { ...answer, tolerance: alone.tolerance };
  const range = readNumber(said);
  return range?.tolerance ? { ...answer, tolerance: range.tolerance } : answer;
}
