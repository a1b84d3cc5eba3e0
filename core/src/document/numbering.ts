import { counterText, romanOf } from './counters.ts';

/** Automatic numbering: what a list shows before each paragraph, worked out as the word processor does. */

export interface LevelFormat {
  /** `decimal`, `lowerLetter`, `upperRoman`, `bullet`, `none` … (ECMA-376, 17.18.59 ST_NumberFormat). */
  readonly format: string;
  /** The text with `%1` for the first level's number and so on; the sign itself for a bullet. */
  readonly text: string;
  readonly start: number;
}

/** A number as a format writes it. */
export function numberIn(format: string, n: number): string {
  switch (format) {
    case 'lowerLetter':
      return letters(n);
    case 'upperLetter':
      return letters(n).toUpperCase();
    case 'lowerRoman':
      return romanOf(n);
    case 'upperRoman':
      return romanOf(n).toUpperCase();
    case 'decimalZero':
      return String(n).padStart(2, '0');
    case 'none':
      return '';
    default: {
      const kind = SCRIPTS[format] ?? (format.startsWith('kind ') ? format.slice(5) : undefined);
      return kind ? counterText(kind, n) : String(n);
    }
  }
}
const SCRIPTS: Readonly<Record<string, string>> = {
  russianLower: 'а',
  russianUpper: 'А',
  arabicAlpha: 'أ',
  arabicAbjad: 'أ',
  hebrew1: 'א',
  hebrew2: 'א',
  aiueo: 'ｱ',
  aiueoFullWidth: 'ア',
  decimalEnclosedCircle: '①',
  ganada: '가',
  ideographTraditional: '甲',
  japaneseCounting: '一',
  chineseCounting: '一',
};

/** a … z, aa, bb … (ECMA-376: the letter is repeated). */
const letters = (n: number): string =>
  n < 1 ? '' : String.fromCharCode(97 + ((n - 1) % 26)).repeat(Math.min(8, Math.floor((n - 1) / 26) + 1));

/** Counts the paragraphs of lists as they come. */
export class ListCounter {
  private readonly counts = new Map<string, number[]>();

  /**
   * The label of the next paragraph of a list.
   * @param list what is counted together
   * @param levels the formats of its levels, from 0
   */
  next(list: string, level: number, levels: readonly (LevelFormat | undefined)[]): string {
    const format = levels[level];
    if (!format) return '';
    if (format.format === 'bullet') return bulletOf(format.text);
    const counts = this.counts.get(list) ?? [];
    counts[level] = (counts[level] ?? format.start - 1) + 1;
    for (let above = 0; above < level; above++) counts[above] ??= levels[above]?.start ?? 1;
    counts.length = level + 1;
    this.counts.set(list, counts);
    return format.text.replace(/%([1-9])/gu, (_, n: string) => {
      const at = Number(n) - 1;
      return numberIn(levels[at]?.format ?? 'decimal', counts[at] ?? levels[at]?.start ?? 1);
    });
  }

  /** Counting of a list begins again. */
  restart(list: string): void {
    this.counts.delete(list);
  }
}

/** Signs of symbol fonts have no place in Unicode: they are shown as a plain bullet. */
const bulletOf = (text: string): string => {
  const sign = text.trim()[0] ?? '•';
  return /[\uE000-\uF8FF]/u.test(sign) ? '•' : /^[o§Øüvq]$/u.test(sign) ? '•' : sign;
};
