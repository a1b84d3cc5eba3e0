import { PNG } from 'pngjs';

type Colour = readonly [number, number, number];
const SEA: Colour = [214, 230, 238];
const LAND: Colour = [233, 219, 181];
const INK: Colour = [60, 66, 76];
const RED: Colour = [196, 60, 48];
const GREEN: Colour = [40, 130, 90];

/**
 * A harbour mouth drawn from nothing: land, channel, a red can and a green cone. `style` 1 is another
 * picture.
 */
export function harbourChart(style = 0): Uint8Array {
  const png = new PNG({ width: 480, height: 300 });
  const put = (x: number, y: number, [r, g, b]: Colour): void => {
    const at = (png.width * y + x) * 4;
    png.data.set([r, g, b, 255], at);
  };
  for (let y = 0; y < png.height; y++) {
    for (let x = 0; x < png.width; x++) {
      const coast = 110 + 14 * Math.sin(x / 23 + style) + 8 * Math.sin(x / 9);
      const mouth = Math.abs(x - 240) < 52 + (coast - y) / 5;
      const land = y < coast && !mouth;
      const grid = x % 80 === 0 || y % 75 === 0;
      const depth = Math.abs(Math.hypot(x - 240, (y - 40) * 1.4) - 210) < 0.9;
      const can = x > 176 && x < 194 && y > 176 && y < 204;
      const cone = y > 172 && y < 204 && Math.abs(x - 296) < (y - 172) / 2;
      put(x, y, can ? RED : cone ? GREEN : land ? LAND : depth ? INK : grid ? [196, 214, 224] : SEA);
    }
  }
  return PNG.sync.write(png, { deflateLevel: 9 });
}

/** Two beacons on a shore, one behind the other, seen in line from the sea. */
export function transitMarks(): Uint8Array {
  const png = new PNG({ width: 360, height: 220 });
  for (let y = 0; y < png.height; y++)
    for (let x = 0; x < png.width; x++) {
      const shore = 92 - 10 * Math.sin(x / 40);
      const far = y > 24 && y < 84 && Math.abs(x - 180) < 5;
      const near = y > 52 && y < 112 && Math.abs(x - 180) < 9 && y % 20 < 14;
      const line = y > 112 && x === 180 && y % 12 < 7;
      const colour: Colour =
        near || line ? INK : far ? RED : y < shore && y > 40 ? LAND : y <= 40 ? [244, 248, 250] : SEA;
      png.data.set([...colour, 255], (png.width * y + x) * 4);
    }
  return PNG.sync.write(png, { deflateLevel: 9 });
}
