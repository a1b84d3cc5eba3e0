import { parseNumber } from '../model/number.ts';
import type { XmlElement } from './tree.ts';

/** Typed reading of attributes. Absent or unreadable values give the default. */

export function attrOf(element: XmlElement, name: string): string {
  return (element.attrs[name] ?? '').trim();
}

export function numberAttr(element: XmlElement, name: string): number | null {
  return parseNumber(element.attrs[name]);
}

export function booleanAttr(element: XmlElement, name: string, otherwise: boolean): boolean {
  const value = attrOf(element, name).toLowerCase();
  if (value === 'true' || value === 'yes' || value === '1') return true;
  if (value === 'false' || value === 'no' || value === '0') return false;
  return otherwise;
}
