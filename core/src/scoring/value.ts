import { parseNumber } from '../model/number.ts';
import { composed } from '../model/composed.ts';
import type { BaseType, Cardinality, Scalar } from '../model/scoring.ts';

/** A value while a program runs: NULL, or a container (of one, for single) with its type. */
export interface Held {
  readonly cardinality: Cardinality;
  readonly baseType: BaseType | null;
  readonly values: readonly Scalar[];
  /** Names of a record's fields, in the order of its values. */
  readonly fields?: readonly string[];
}
export type Value = Held | null;

export const TRUE: Value = { cardinality: 'single', baseType: 'boolean', values: [true] };
export const FALSE: Value = { cardinality: 'single', baseType: 'boolean', values: [false] };

export const truth = (b: boolean | null): Value => (b === null ? null : b ? TRUE : FALSE);
export const float = (n: number | null): Value =>
  n === null || !Number.isFinite(n) ? null : { cardinality: 'single', baseType: 'float', values: [n] };
export const integer = (n: number | null): Value =>
  n === null || !Number.isFinite(n) ? null : { cardinality: 'single', baseType: 'integer', values: [n] };

/** A held value from scalars; empty gives NULL, as an empty container is NULL in QTI. */
export function held(cardinality: Cardinality, baseType: BaseType | null, values: readonly Scalar[]): Value {
  return values.length === 0 ? null : { cardinality, baseType, values };
}

/** The number of a single numeric value; null for NULL and for anything else. */
export function asNumber(v: Value): number | null {
  if (v === null || v.values.length !== 1) return null;
  const [first] = v.values;
  if (typeof first === 'number') return first;
  return null;
}

export function asBoolean(v: Value): boolean | null {
  if (v === null) return null;
  return typeof v.values[0] === 'boolean' ? v.values[0] : null;
}

export function asText(v: Value): string | null {
  return v === null || v.values.length !== 1 ? null : String(v.values[0]);
}

/**
 * A form in which equal scalars are identical: pairs are undirected, numbers compare as numbers, letters are
 * composed.
 */
export function scalarKey(scalar: Scalar, baseType: BaseType | null): string {
  if (typeof scalar === 'number') return String(scalar === 0 ? 0 : scalar);
  const text = composed(String(scalar));
  return baseType === 'pair' ? text.split(' ').sort().join(' ') : text;
}

/** Whether two scalars are equal: most that are, or are not, are so as they stand. */
export const sameScalar = (a: Scalar, b: Scalar, baseType: BaseType | null): boolean =>
  a === b || scalarKey(a, baseType) === scalarKey(b, baseType);

/** QTI's match: same cardinality; multiple without order, ordered with (QTI 2.1, "match"). */
export function sameValue(a: Held, b: Held): boolean {
  if (a.values.length !== b.values.length) return false;
  if (a.fields || b.fields) return sameRecord(a, b);
  const type = a.baseType ?? b.baseType;
  if (a.values.length === 1) return sameScalar(a.values[0]!, b.values[0]!, type);
  const left = a.values.map((v) => scalarKey(v, type));
  const right = b.values.map((v) => scalarKey(v, type));
  if (a.cardinality !== 'ordered') {
    left.sort();
    right.sort();
  }
  return left.every((v, at) => v === right[at]);
}

function sameRecord(a: Held, b: Held): boolean {
  return (a.fields ?? []).every((name, at) => {
    const there = b.fields?.indexOf(name) ?? -1;
    return there >= 0 && String(a.values[at]) === String(b.values[there]);
  });
}

/**
 * What a number typed as text amounts to, field by field (QTI 2.1, "textEntryInteraction": numeric records).
 */
export function numericRecord(text: string): Value {
  const trimmed = text.trim().replace(',', '.');
  const n = parseNumber(text);
  if (n === null) return { cardinality: 'record', baseType: null, fields: ['stringValue'], values: [text] };
  const [mantissa = '', exponent] = trimmed.toLowerCase().split('e');
  const [left = '', right = ''] = mantissa.replace(/^[+-]/u, '').split('.');
  const digits = (left + right).replace(/^0+/u, '');
  const fields: Record<string, Scalar> = {
    stringValue: text,
    floatValue: n,
    ...(Number.isInteger(n) && right === '' ? { integerValue: n } : {}),
    leftDigits: left.length,
    rightDigits: right.length,
    ndp: right.length,
    nsf: digits.length,
    ...(exponent === undefined ? {} : { exponent: Number(exponent) }),
  };
  return {
    cardinality: 'record',
    baseType: null,
    fields: Object.keys(fields),
    values: Object.values(fields),
  };
}
