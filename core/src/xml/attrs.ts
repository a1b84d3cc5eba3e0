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

/** A finite number from text (decimal point or comma, scientific notation), or null. */
export function parseNumber(text: string | null | undefined): number | null {
  const trimmed = (text ?? '').trim();
  if (!/^[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE][+-]?\d+)?$/u.test(trimmed)) return null;
  const parsed = Number(trimmed.replace(',', '.'));
  return Number.isFinite(parsed) ? parsed : null;
}
