// <printedVariable identifier="A" format="%.2f"/>
import { plainNumber } from '../model/number.ts';
import type { KeptAttributes } from '../model/content.ts';
import type { Scalar } from '../model/scoring.ts';
import type { Value } from './value.ts';

/** Flags, width, figures after the point, and how the number is written; the per cent sign may be left out. */
const FORMAT = /^%?([-+ #0]*)([1-9]\d*)?(?:\.(\d+))?([a-zA-Z])$/u;
/** Figures that JavaScript can write after the point, and in all. */
const MAX_FIGURES = 100;
const MAX_WIDTH = 200;
/** Figures where a format says nothing (C's printf, common practice). */
const DEFAULT_FIGURES = 6;

/**
 * A variable as candidates read it (QTI 2.1 Information Model, "printedVariable" and "Number Formatting Rules":
 * the conversions of C's printf, and r, significant figures with their zeros). A format that cannot be understood
 * leaves numbers as they are.
 */
export function printedText(value: Value, attrs: KeptAttributes = {}): string {
  if (value === null) return '';
  const parts = valuesPrinted(value, attrs);
  if (value.cardinality === 'record') return parts.join(attrs['delimiter'] ?? '; ');
  return parts.join(attrs['delimiter'] ?? (parts.length > 1 ? '; ' : ''));
}

function valuesPrinted(value: NonNullable<Value>, attrs: KeptAttributes): string[] {
  const one = (v: Scalar | undefined): string => (v === undefined ? '' : printedScalar(v, attrs));
  if (value.cardinality === 'record') {
    const { fields = [] } = value;
    const wanted = attrs['field'];
    if (wanted !== undefined) return [one(value.values[fields.indexOf(wanted)])];
    const sign = attrs['mappingIndicator'] ?? '=';
    return fields.map((field, at) => `${field}${sign}${one(value.values[at])}`);
  }
  const index = Number(attrs['index']);
  if (value.cardinality === 'ordered' && Number.isInteger(index) && index > 0)
    return [one(value.values[index - 1])];
  return value.values.map((v) => one(v));
}

function printedScalar(v: Scalar, attrs: KeptAttributes): string {
  if (typeof v !== 'number') return String(v);
  const found = FORMAT.exec(attrs['format'] ?? '');
  if (!found) return based(v, attrs['base']) ?? plainNumber(v);
  const [, flags = '', width, figures, conversion] = found;
  const digits = figures === undefined ? null : Math.min(MAX_FIGURES, Number(figures));
  const written = converted(Math.abs(v), conversion!, digits);
  if (written === null) return plainNumber(v);
  const sign = v < 0 ? '-' : flags.includes('+') ? '+' : flags.includes(' ') ? ' ' : '';
  const wide = Math.min(MAX_WIDTH, Number(width ?? 0));
  if (flags.includes('-')) return (sign + written).padEnd(wide);
  if (flags.includes('0')) return sign + written.padStart(wide - sign.length, '0');
  return (sign + written).padStart(wide);
}

/** A whole number to another base, where one is named. */
function based(v: number, base: string | undefined): string | null {
  const to = Number(base);
  if (base === undefined || to === 10 || !Number.isInteger(v) || !Number.isInteger(to)) return null;
  return to >= 2 && to <= 36 ? v.toString(to) : null;
}

/** One of printf's conversions of a number that is not negative; null for one there is not. */
function converted(v: number, conversion: string, digits: number | null): string | null {
  const whole = Math.round(v);
  switch (conversion) {
    case 'i':
    case 'd':
      return String(whole).padStart(digits ?? 0, '0');
    case 'o':
      return whole.toString(8);
    case 'x':
      return whole.toString(16);
    case 'X':
      return whole.toString(16).toUpperCase();
    case 'f':
    case 'F':
      return v.toFixed(digits ?? DEFAULT_FIGURES);
    case 'e':
      return exponent(v.toExponential(digits ?? DEFAULT_FIGURES));
    case 'E':
      return exponent(v.toExponential(digits ?? DEFAULT_FIGURES)).toUpperCase();
    case 'g':
    case 'G': {
      const short = exponent(
        significant(v, digits)
          .replace(/(\.(?:\d*[1-9])?)0+(?=e|$)/u, '$1')
          .replace(/\.(?=e|$)/u, ''),
      );
      return conversion === 'g' ? short : short.toUpperCase();
    }
    case 'r':
      return exponent(significant(v, digits));
    case 'R':
      return exponent(significant(v, digits)).toUpperCase();
    default:
      return null;
  }
}

/** So many figures, with an exponent where the number is very large or very small for them. */
function significant(v: number, digits: number | null): string {
  const figures = Math.max(1, digits ?? DEFAULT_FIGURES);
  if (v === 0) return (0).toFixed(figures - 1);
  const power = Number(v.toExponential(figures - 1).split('e')[1]);
  return power < -4 || power >= figures
    ? v.toExponential(figures - 1)
    : v.toFixed(Math.max(0, figures - 1 - power));
}

/** "1e+3" with two figures in its exponent, as printf has it. */
const exponent = (written: string): string =>
  written.replace(/e([+-])(\d)$/u, (_, sign: string, digit: string) => `e${sign}0${digit}`);
