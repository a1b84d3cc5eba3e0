import type { ResponseDeclaration, Scalar } from '../model/scoring.ts';
import { held, numericRecord, type Value } from './value.ts';

/** What a response holds once it is answered. Answers that do not fit the base type (text for a number) count as not given. */
export function answerValue(response: ResponseDeclaration, given: readonly Scalar[]): Value {
  const { cardinality, baseType } = response;
  if (cardinality === 'record') return given[0] === undefined ? null : numericRecord(String(given[0]));
  if (given.length === 0) return null;
  const numeric = baseType === 'float' || baseType === 'integer' || baseType === 'duration';
  const fits = (v: Scalar): boolean => (numeric ? typeof v === 'number' : v !== '');
  const fit = given.every(fits) ? given : given.filter(fits);
  const typed = baseType === 'boolean' ? fit.map((v) => v === true || v === 'true') : fit;
  return held(cardinality, baseType, cardinality === 'single' && typed.length > 1 ? [typed[0]!] : typed);
}
