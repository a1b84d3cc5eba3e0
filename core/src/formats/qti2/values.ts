import { parseNumber } from '../../model/number.ts';
import type { BaseType, Scalar } from '../../model/scoring.ts';

/** A value as text to a scalar of its base type; text that is no number stays null for numeric types. */
export function parseScalar(text: string, baseType: BaseType | null): Scalar | null {
  switch (baseType) {
    case 'integer':
    case 'float':
    case 'duration':
      return parseNumber(text);
    case 'boolean':
      return text.trim() === 'true' || text.trim() === '1';
    case 'string':
      return text;
    case 'pair':
    case 'directedPair':
    case 'point':
      return text.trim().replace(/\s+/gu, ' ');
    case 'intOrIdentifier':
      return parseNumber(text) ?? text.trim();
    case 'identifier':
    case 'file':
    case 'uri':
    case null:
      return text.trim();
  }
}

export const formatScalar = (value: Scalar): string => String(value);
