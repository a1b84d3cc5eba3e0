import { OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { PdfText } from '../src/intake/platform.ts';

/** What a page's operators write, and the bars they draw behind and below it (PDF 32000-1:2008, 8.4 and 9.4). */

type Matrix = readonly [number, number, number, number, number, number];
const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];
const multiply = (m: Matrix, n: Matrix): Matrix => [
  m[0] * n[0] + m[2] * n[1],
  m[1] * n[0] + m[3] * n[1],
  m[0] * n[2] + m[2] * n[3],
  m[1] * n[2] + m[3] * n[3],
  m[0] * n[4] + m[2] * n[5] + m[4],
  m[1] * n[4] + m[3] * n[5] + m[5],
];
const apply = (m: Matrix, x: number, y: number): [number, number] => [
  m[0] * x + m[2] * y + m[4],
  m[1] * x + m[3] * y + m[5],
];

interface State {
  ctm: Matrix;
  fill: string;
  stroke: string;
  font: string;
  size: number;
  charSpacing: number;
  wordSpacing: number;
  scale: number;
  rise: number;
  leading: number;
  /** 2: filled and outlined. */
  mode: number;
}

interface Bar {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
  readonly colour: string;
}

interface Glyph {
  readonly unicode: string;
  readonly width: number;
  readonly isSpace: boolean;
}

interface Written {
  readonly glyphs: Placed[];
  readonly y: number;
  readonly height: number;
  readonly font: string;
  readonly colour: string;
  /** Drawn with an outline, as letters of a font that has no bold. */
  readonly heavy: boolean;
}

/** More bars are a drawing. */
const MOST_BARS = 5000;
/** A gap of so many ems ends a piece of text. */
const GAP = 0.7;
/** So much of an em is a blank that nobody wrote. */
const BLANK = 0.17;

export class Painter {
  private state: State = {
    ctm: IDENTITY,
    fill: '#000000',
    stroke: '#000000',
    font: '',
    size: 10,
    charSpacing: 0,
    wordSpacing: 0,
    scale: 1,
    rise: 0,
    leading: 0,
    mode: 0,
  };
  private readonly stack: State[] = [];
  private text: Matrix = IDENTITY;
  private x = 0;
  private y = 0;
  private lineX = 0;
  private lineY = 0;
  private path: Omit<Bar, 'colour'>[] = [];
  private readonly written: Written[] = [];
  private readonly bars: Bar[] = [];

  constructor(private readonly fontName: (id: string) => string) {}

  take(operator: number, args: readonly unknown[] | null): void {
    const { state } = this;
    const number = (at: number): number => Number(args?.[at] ?? 0);
    switch (operator) {
      case OPS.save:
        this.stack.push({ ...state });
        return;
      case OPS.restore:
        this.state = this.stack.pop() ?? state;
        return;
      case OPS.transform:
        state.ctm = multiply(state.ctm, matrixOf(args));
        return;
      case OPS.paintFormXObjectBegin:
        this.stack.push({ ...state });
        if (Array.isArray(args?.[0])) state.ctm = multiply(state.ctm, matrixOf(args[0] as unknown[]));
        return;
      case OPS.paintFormXObjectEnd:
        this.state = this.stack.pop() ?? state;
        return;
      case OPS.setFillRGBColor:
        state.fill = colourOf(args);
        return;
      case OPS.setStrokeRGBColor:
        state.stroke = colourOf(args);
        return;
      case OPS.beginText:
        this.text = IDENTITY;
        this.x = this.y = this.lineX = this.lineY = 0;
        return;
      case OPS.setFont:
        state.font = String(args?.[0] ?? '');
        state.size = number(1);
        return;
      case OPS.setCharSpacing:
        state.charSpacing = number(0);
        return;
      case OPS.setWordSpacing:
        state.wordSpacing = number(0);
        return;
      case OPS.setHScale:
        state.scale = number(0) / 100;
        return;
      case OPS.setTextRenderingMode:
        state.mode = number(0);
        return;
      case OPS.setTextRise:
        state.rise = number(0);
        return;
      case OPS.setLeading:
        // The library turns it round: a line down is positive there.
        state.leading = -number(0);
        return;
      case OPS.setLeadingMoveText:
        state.leading = number(1);
        this.move(number(0), number(1));
        return;
      case OPS.moveText:
        this.move(number(0), number(1));
        return;
      case OPS.nextLine:
        this.move(0, state.leading);
        return;
      case OPS.setTextMatrix:
        this.text = matrixOf(
          Array.isArray(args?.[0]) || ArrayBuffer.isView(args?.[0]) ? (args[0] as unknown[]) : args,
        );
        this.x = this.y = this.lineX = this.lineY = 0;
        return;
      case OPS.showText:
        this.show((args?.[0] ?? []) as readonly (Glyph | number | null)[]);
        return;
      case OPS.constructPath:
        this.outline(args);
        return;
      case OPS.fill:
      case OPS.eoFill:
      case OPS.fillStroke:
      case OPS.eoFillStroke:
        this.draw(state.fill);
        return;
      case OPS.stroke:
      case OPS.closeStroke:
        this.draw(state.stroke);
        return;
      case OPS.endPath:
        this.path = [];
        return;
      default:
    }
  }

  private move(x: number, y: number): void {
    this.x = this.lineX += x;
    this.y = this.lineY += y;
  }

  private show(glyphs: readonly (Glyph | number | null)[]): void {
    const { state } = this;
    const m = multiply(state.ctm, this.text);
    // Text that runs up or down the page is a margin's.
    const level = Math.abs(m[1]) < Math.abs(m[0]) * 0.1;
    const em = state.size;
    let piece: Written | null = null;
    let gap = 0;
    for (const glyph of glyphs) {
      if (glyph === null) continue;
      if (typeof glyph === 'number') {
        const by = (-glyph * em) / 1000;
        this.x += by * state.scale;
        gap += by;
        continue;
      }
      const [from, y] = apply(m, this.x, this.y + state.rise);
      if (piece && gap > em * GAP) piece = null;
      else if (piece && gap > em * BLANK && !/\s$/u.test(piece.glyphs.at(-1)?.unicode ?? ''))
        piece.glyphs.push({ unicode: ' ', from, to: from });
      gap = 0;
      if (!piece && level) {
        const heavy = state.mode === 2;
        piece = { glyphs: [], y, height: Math.abs(m[3] * em), font: state.font, colour: state.fill, heavy };
        this.written.push(piece);
      }
      const wide = (glyph.width * em) / 1000 + state.charSpacing + (glyph.isSpace ? state.wordSpacing : 0);
      this.x += wide * state.scale;
      piece?.glyphs.push({ unicode: glyph.unicode, from, to: apply(m, this.x, this.y)[0] });
    }
  }

  private outline(args: readonly unknown[] | null): void {
    // Its bounds: left, bottom, right, top.
    const bounds = args?.[2] as ArrayLike<number> | undefined;
    if (!bounds || this.path.length + this.bars.length > MOST_BARS) return;
    const [x1, y1] = apply(this.state.ctm, bounds[0] ?? 0, bounds[1] ?? 0);
    const [x2, y2] = apply(this.state.ctm, bounds[2] ?? 0, bounds[3] ?? 0);
    this.path.push({
      left: Math.min(x1, x2),
      right: Math.max(x1, x2),
      bottom: Math.min(y1, y2),
      top: Math.max(y1, y2),
    });
  }

  private draw(colour: string): void {
    for (const bar of this.path) this.bars.push({ ...bar, colour });
    this.path = [];
  }

  /** Everything that was written, from the page's lower left corner. */
  texts(left: number, bottom: number): PdfText[] {
    const rules = this.bars.filter((b) => b.top - b.bottom < 2 && b.right - b.left > 2);
    const backs = this.bars.filter((b) => b.top - b.bottom >= 4 && !/^#(?:ffffff|000000)$/u.test(b.colour));
    return this.written.flatMap((w) => {
      const under = rules.filter((b) => b.top <= w.y + 0.5 && b.bottom > w.y - w.height * 0.35);
      const behind = backs.filter(
        (b) =>
          b.bottom <= w.y + 1 && b.top >= w.y + w.height * 0.4 && b.top - b.bottom < w.height * MOST_LINES,
      );
      return stretches(w, under, behind)
        .filter((s) => s.glyphs.some((g) => g.unicode.trim() !== ''))
        .map((s) => this.textOf(w, s, left, bottom));
    });
  }

  private textOf(
    w: Written,
    { glyphs, underline, highlight }: Stretch,
    left: number,
    bottom: number,
  ): PdfText {
    const name = this.fontName(w.font);
    const { text, rtl } = inReadingOrder(glyphs.map((g) => g.unicode));
    return {
      text,
      x: glyphs[0]!.from - left,
      y: w.y - bottom,
      width: glyphs.at(-1)!.to - glyphs[0]!.from,
      height: w.height || 10,
      bold: w.heavy || /bold|black|heavy|semibd|demi/iu.test(name),
      italic: /italic|oblique/iu.test(name),
      underline,
      highlight,
      color: w.colour === '#000000' ? null : w.colour,
      rtl,
    };
  }
}

/** A bar higher than so many lines is a box, not a mark. */
const MOST_LINES = 2.2;

interface Placed {
  readonly unicode: string;
  readonly from: number;
  readonly to: number;
}
interface Stretch {
  readonly glyphs: Placed[];
  readonly underline: boolean;
  readonly highlight: string | null;
}

/** A piece cut where a bar begins or ends: a label is not marked with the choice behind it. */
function stretches({ glyphs }: Written, under: readonly Bar[], behind: readonly Bar[]): Stretch[] {
  if (under.length === 0 && behind.length === 0)
    return [{ glyphs: [...glyphs], underline: false, highlight: null }];
  const out: Stretch[] = [];
  for (const glyph of glyphs) {
    const middle = (glyph.from + glyph.to) / 2;
    const on = (b: Bar): boolean => b.left <= middle && middle <= b.right;
    const underline = under.some(on);
    const highlight = behind.find(on)?.colour ?? null;
    const last = out.at(-1);
    if (last && last.underline === underline && last.highlight === highlight) last.glyphs.push(glyph);
    else out.push({ glyphs: [glyph], underline, highlight });
  }
  return out;
}

function matrixOf(args: readonly unknown[] | ArrayLike<unknown> | null): Matrix {
  const n = Array.from(args ?? [], Number);
  return n.length >= 6 && n.every(Number.isFinite) ? (n.slice(0, 6) as unknown as Matrix) : IDENTITY;
}

function colourOf(args: readonly unknown[] | ArrayLike<unknown> | null): string {
  const parts = Array.from(args ?? [], Number).slice(0, 3);
  return `#${parts
    .map((n) =>
      Math.max(0, Math.min(255, Math.round(n)))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}

const RTL = /[\u0590-\u08FF\uFB1D-\uFDFF\uFE70-\uFEFF]/u;
const LTR = /[\p{Nd}A-Za-z\u00C0-\u024F\u0370-\u03FF\u0400-\u04FF]/u;
/**
 * Signs as they stand on the page, from left to right, in the order they are read. A sign that is two letters stays
 * whole: its letters are in order already (Unicode Bidirectional Algorithm, L2 and L4, undone).
 */
function inReadingOrder(glyphs: readonly string[]): { text: string; rtl: boolean } {
  const rtl = glyphs.some((g) => RTL.test(g));
  if (!rtl) return { text: glyphs.join(''), rtl };
  const turned = glyphs.toReversed();
  const out: string[] = [];
  let run: string[] = [];
  for (const [at, glyph] of turned.entries()) {
    const between = run.length > 0 && /^[.,:/\s-]$/u.test(glyph) && LTR.test(turned[at + 1] ?? '');
    if (LTR.test(glyph) || between) run.push(glyph);
    else {
      out.push(...run.toReversed(), glyph);
      run = [];
    }
  }
  return { text: [...out, ...run.toReversed()].join(''), rtl };
}
