import type { Shape } from '../model/scoring.ts';
import { spend } from './budget.ts';

/** Width and height of the picture that coordinates in per cent refer to. */
export interface Size {
  readonly width: number | null;
  readonly height: number | null;
}

/**
 * Coordinates in pixels; null where one cannot be read or is in per cent of an unknown size. Odd places are
 * across.
 */
function parseCoords(coords: string, size: Size): number[] | null {
  const out: number[] = [];
  spend(coords.length >> 5);
  const parts = coords.trim() === '' ? [] : coords.trim().split(/[\s,]+/u);
  for (const [at, part] of parts.entries()) {
    const n = Number(part.replace('%', ''));
    if (!Number.isFinite(n)) return null;
    const whole = at % 2 === 0 ? size.width : size.height;
    if (!part.endsWith('%')) out.push(n);
    else if (whole === null) return null;
    else out.push((n / 100) * whole);
  }
  return out;
}

export function parsePoint(text: string): [number, number] | null {
  const parts = text
    .trim()
    .split(/[\s,]+/u)
    .map(Number);
  return parts.length === 2 && parts.every(Number.isFinite) ? [parts[0]!, parts[1]!] : null;
}

const EDGE = 1e-9;

/**
 * Whether a point lies in an area; borders count as inside for all shapes (QTI 2.1, "shape": HTML 4 image
 * maps).
 */
export function inArea(shape: Shape, coords: string, [x, y]: [number, number], size: Size): boolean {
  if (shape === 'default') return true;
  const c = parseCoords(coords, size);
  if (!c) return false;
  switch (shape) {
    case 'circle': {
      const [cx, cy, r] = c;
      return c.length >= 3 && Math.hypot(x - cx!, y - cy!) <= r! + EDGE;
    }
    case 'ellipse': {
      const [cx, cy, rx, ry = rx] = c;
      if (c.length < 3 || rx === 0 || ry === 0) return false;
      return ((x - cx!) / rx!) ** 2 + ((y - cy!) / ry!) ** 2 <= 1 + EDGE;
    }
    case 'rect': {
      const [x1, y1, x2, y2] = c;
      if (c.length < 4) return false;
      return (
        x >= Math.min(x1!, x2!) &&
        x <= Math.max(x1!, x2!) &&
        y >= Math.min(y1!, y2!) &&
        y <= Math.max(y1!, y2!)
      );
    }
    case 'poly':
      return inPolygon(c, x, y);
  }
}

function inPolygon(c: readonly number[], x: number, y: number): boolean {
  const n = Math.floor(c.length / 2);
  spend(n >> 2);
  let inside = false;
  for (let i = 0, j = n - 1; i < n; j = i++) {
    const [xi, yi, xj, yj] = [c[2 * i]!, c[2 * i + 1]!, c[2 * j]!, c[2 * j + 1]!];
    const cross = (x - xi) * (yj - yi) - (y - yi) * (xj - xi);
    const within = (x - xi) * (x - xj) <= EDGE && (y - yi) * (y - yj) <= EDGE;
    if (Math.abs(cross) <= EDGE * Math.max(1, Math.hypot(xj - xi, yj - yi)) && within) return true;
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) inside = !inside;
  }
  return inside;
}

/** A point well inside, points on the border, and points just outside an area: what tells two areas apart. */
export function areaProbes(
  shape: Shape,
  coords: string,
  size: Size,
): { inside: [number, number][]; border: [number, number][]; outside: [number, number][] } {
  const c = parseCoords(coords, size) ?? [];
  const none = { inside: [], border: [], outside: [] };
  const box = (x1: number, y1: number, x2: number, y2: number) => ({
    inside: [[(x1 + x2) / 2, (y1 + y2) / 2]] as [number, number][],
    border: [
      [x1, (y1 + y2) / 2],
      [x2, (y1 + y2) / 2],
    ] as [number, number][],
    outside: [
      [x1 - 1, (y1 + y2) / 2],
      [x2 + 1, (y1 + y2) / 2],
      [(x1 + x2) / 2, y1 - 1],
      [(x1 + x2) / 2, y2 + 1],
    ] as [number, number][],
  });
  switch (shape) {
    case 'circle':
      return c.length < 3 ? none : box(c[0]! - c[2]!, c[1]! - c[2]!, c[0]! + c[2]!, c[1]! + c[2]!);
    case 'ellipse': {
      const ry = c[3] ?? c[2]!;
      return c.length < 3 ? none : box(c[0]! - c[2]!, c[1]! - ry, c[0]! + c[2]!, c[1]! + ry);
    }
    case 'rect':
      return c.length < 4
        ? none
        : box(Math.min(c[0]!, c[2]!), Math.min(c[1]!, c[3]!), Math.max(c[0]!, c[2]!), Math.max(c[1]!, c[3]!));
    case 'poly': {
      const corners: [number, number][] = [];
      for (let at = 0; at + 1 < c.length; at += 2) corners.push([c[at]!, c[at + 1]!]);
      if (corners.length < 3) return none;
      const [a, b, d] = [corners[0]!, corners[1]!, corners[2]!];
      // The middle of a corner's triangle lies inside unless the corner points inward; then another is taken.
      const middle = (at: number): [number, number] => {
        const [p, q, r] = [0, 1, 2].map((on) => corners[(at + on) % corners.length]!);
        return [(p![0] + q![0] + r![0]) / 3, (p![1] + q![1] + r![1]) / 3];
      };
      const at = corners.findIndex((_, n) => inPolygon(c, ...middle(n)));
      const inside = at < 0 ? [] : [middle(at)];
      const [least, most] = corners.reduce(
        ([low, high], [x]) => [Math.min(low, x), Math.max(high, x)],
        [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY],
      );
      return {
        inside,
        border: [a, [(b[0] + d[0]) / 2, (b[1] + d[1]) / 2]],
        outside: [
          [least! - 1, a[1]],
          [most! + 1, a[1]],
        ],
      };
    }
    case 'default':
      return { inside: [[0, 0]], border: [], outside: [] };
  }
}
