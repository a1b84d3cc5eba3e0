import type { Hotspot } from '@alforja/core';

/** An area as an SVG path, and where its letter goes. */
export function outlineOf(
  spot: Pick<Hotspot, 'shape' | 'coords'>,
  width: number,
  height: number,
): { path: string; x: number; y: number } {
  const c = spot.coords.split(/[\s,]+/u).map((part, at) => {
    const n = Number(part.replace('%', ''));
    return part.endsWith('%') ? (n / 100) * (at % 2 === 0 ? width : height) : n;
  });
  if (c.some((n) => !Number.isFinite(n)) || spot.shape === 'default')
    return { path: `M0 0H${width}V${height}H0Z`, x: width / 2, y: height / 2 };
  const [a = 0, b = 0, r = 0, d = r] = c;
  switch (spot.shape) {
    case 'rect':
      return { path: `M${a} ${b}H${r}V${d}H${a}Z`, x: (a + r) / 2, y: (b + d) / 2 };
    case 'circle':
    case 'ellipse': {
      const down = spot.shape === 'circle' ? r : d;
      return {
        path: `M${a - r} ${b}A${r} ${down} 0 1 0 ${a + r} ${b}A${r} ${down} 0 1 0 ${a - r} ${b}Z`,
        x: a,
        y: b,
      };
    }
    case 'poly': {
      const corners: string[] = [];
      for (let at = 0; at + 1 < c.length; at += 2) corners.push(`${c[at]} ${c[at + 1]}`);
      const n = corners.length || 1;
      const middle = (odd: 0 | 1): number =>
        c.filter((_, at) => at % 2 === odd).reduce((sum, v) => sum + v, 0) / n;
      return { path: `M${corners.join('L')}Z`, x: middle(0), y: middle(1) };
    }
  }
}
