import { openItems, type Language, type Truth } from './truth.ts';

/** Ways that documents of questions are laid out; each makes plain paragraphs, which others write in a format. */

export interface Piece {
  readonly text: string;
  readonly bold?: boolean;
  readonly underline?: boolean;
  readonly highlight?: boolean;
  readonly red?: boolean;
}
export interface Line {
  readonly pieces: readonly Piece[];
  /** Automatic numbering: questions or their choices. */
  readonly list?: 'question' | 'choice' | 'bullet';
  readonly heading?: number;
  /** An empty line goes before it. */
  readonly apart?: boolean;
  /** A table of cells instead. */
  readonly table?: readonly (readonly string[])[];
}
export interface Laid {
  readonly lines: readonly Line[];
  readonly items: readonly Truth[];
  /** A file of answers of its own. */
  readonly answers?: readonly Line[];
}

const line = (text: string, over: Partial<Line> = {}, piece: Partial<Piece> = {}): Line => ({
  pieces: [{ text, ...piece }],
  ...over,
});
const heading = (text: string, level = 1): Line => line(text, { heading: level, apart: true });
const letter = (language: Language, at: number): string => [...language.words.letters][at]!;
const upper = (language: Language, at: number): string => letter(language, at).toUpperCase();
const choices = (items: readonly Truth[]): Extract<Truth, { kind: 'choice' }>[] =>
  items.filter((i) => i.kind === 'choice');
const single = (items: readonly Truth[]): Extract<Truth, { kind: 'choice' }>[] =>
  choices(items).filter((i) => i.right.length === 1);
const keyLetters = (language: Language, item: Extract<Truth, { kind: 'choice' }>, of = letter): string =>
  item.right.map((at) => of(language, at)).join(', ');

const marked =
  (mark: Partial<Piece>, automatic = false) =>
  (language: Language): Laid => {
    const items = choices(language.items).map(({ points: _p, ...i }) => ({ ...i, why: undefined }) as Truth);
    const lines: Line[] = [heading(language.words.chapter(3))];
    choices(items).forEach((item, n) => {
      lines.push(
        line(
          automatic ? item.stem : `${n + 1}. ${item.stem}`,
          automatic ? { list: 'question', apart: true } : { apart: true },
        ),
      );
      item.choices.forEach((text, at) => {
        const right = item.right.includes(at);
        lines.push(
          automatic
            ? line(text, { list: 'choice' }, right ? mark : {})
            : line(`${letter(language, at)}. ${text}`, {}, right ? mark : {}),
        );
      });
    });
    return { lines, items };
  };

/** Everything on labelled lines, one below the other. */
function labelled(language: Language): Laid {
  const { words } = language;
  const items = [...language.items, ...openItems(language)];
  const lines: Line[] = [heading(words.title), heading(words.chapter(1), 2)];
  items.forEach((item, n) => {
    lines.push(line(`${words.question} ${n + 1}: ${item.stem}`, { apart: true }));
    if (item.kind === 'choice')
      item.choices.forEach((text, at) => lines.push(line(`(${letter(language, at)}) ${text}`)));
    lines.push(line(`${words.answer}: ${answerOf(language, item)}`));
    if (item.points !== undefined) lines.push(line(`${words.points}: ${item.points}`));
    lines.push(line(`${words.level}: ${n % 2 === 0 ? words.easy : words.hard}`));
    if (item.kind === 'choice' && item.why) lines.push(line(`${words.why}: ${item.why}`));
  });
  return { lines, items };
}

function answerOf(language: Language, item: Truth): string {
  switch (item.kind) {
    case 'choice':
      return keyLetters(language, item);
    case 'truth':
      return item.right ? language.words.true : language.words.false;
    case 'text':
      return item.right.join(` ${language.words.or} `);
    case 'number':
      return `${item.right} ± ${item.within}`;
    case 'essay':
      return item.model;
  }
}

/** Several labels on one line, in capitals. */
function oneLine(language: Language): Laid {
  const { words } = language;
  const items = choices(language.items).map(({ why: _w, ...i }) => ({ ...i, points: i.points ?? 1 }));
  const lines: Line[] = [];
  items.forEach((item, n) => {
    lines.push(line(`${n + 1}) ${item.stem}`, { apart: true }));
    item.choices.forEach((text, at) => lines.push(line(`${upper(language, at)}) ${text}`)));
    lines.push(
      line(
        `${words.answer.toUpperCase()}: ${keyLetters(language, item, upper)}    ` +
          `${words.points.toUpperCase()}: ${item.points}    ${words.level.toUpperCase()}: ` +
          `${n % 2 ? words.hard : words.easy}`,
      ),
    );
  });
  return { lines, items };
}

/** Points in the text, keys in a list at the end. */
function listAtEnd(language: Language): Laid {
  const { words } = language;
  const items = choices(language.items).map(({ why: _w, ...i }) => i);
  const lines: Line[] = [heading(words.chapter(5))];
  items.forEach((item, n) => {
    lines.push(
      line(`${n + 1}. ${item.stem}${item.points ? ` (${item.points} ${words.points})` : ''}`, {
        apart: true,
      }),
    );
    item.choices.forEach((text, at) => lines.push(line(`${letter(language, at)}) ${text}`)));
  });
  lines.push(heading(words.key));
  items.forEach((item, n) => lines.push(line(`${n + 1}. ${keyLetters(language, item)}`)));
  return { lines, items };
}

/** Two chapters that count from 1, and a list of keys a chapter, several to a line. */
function chapters(language: Language): Laid {
  const { words } = language;
  const all = single(language.items).map(({ why: _w, points: _p, ...i }) => i);
  const groups = [all.slice(0, 3), all.slice(2)];
  const lines: Line[] = [];
  groups.forEach((items, c) => {
    lines.push(heading(words.chapter(c + 1)));
    items.forEach((item, n) => {
      lines.push(line(`${n + 1}. ${item.stem}`, { apart: true }));
      item.choices.forEach((text, at) => lines.push(line(`${upper(language, at)}. ${text}`)));
    });
  });
  lines.push(heading(words.key));
  groups.forEach((items, c) => {
    lines.push(line(words.chapter(c + 1), { apart: true }));
    lines.push(line(items.map((item, n) => `${n + 1}. ${keyLetters(language, item, upper)}`).join('   ')));
  });
  return { lines, items: groups.flat() };
}

/** Choices in the line of their question or in one line below it, a star before the right one. */
function inline(language: Language): Laid {
  const items = choices(language.items).map(({ why: _w, points: _p, ...i }) => i);
  const lines = items.flatMap((item, n): Line[] => [
    line(`${n + 1}. ${item.stem}`, { apart: true }),
    line(
      item.choices
        .map((text, at) => `${item.right.includes(at) ? '*' : ''}${letter(language, at)}) ${text}`)
        .join('    '),
    ),
  ]);
  return { lines, items };
}

/** Questions without numbers, bullets, and a word behind the right choice. */
function bullets(language: Language): Laid {
  const items = choices(language.items).map(({ why: _w, points: _p, ...i }) => i);
  const lines = items.flatMap((item): Line[] => [
    line(item.stem, { apart: true }),
    ...item.choices.map((text, at) =>
      line(`${text}${item.right.includes(at) ? ` (${language.words.correct})` : ''}`, {
        list: 'bullet' as const,
      }),
    ),
  ]);
  return { lines: [heading(language.words.chapter(2)), ...lines], items };
}

/** Choices a line each without a label, a star before the right one. */
function bare(language: Language): Laid {
  const items = choices(language.items).map(({ why: _w, points: _p, ...i }) => i);
  const lines = items.flatMap((item, n): Line[] => [
    line(`${n + 1}. ${item.stem}`, { apart: true }),
    ...item.choices.map((text, at) => line(`${item.right.includes(at) ? '*' : ''}${text}`)),
  ]);
  return { lines, items };
}

/** The key on a rule before the number. */
function front(language: Language): Laid {
  const items = single(language.items).map(({ why: _w, points: _p, ...i }) => i);
  const lines = items.flatMap((item, n): Line[] => [
    line(`__${upper(language, item.right[0]!)}__ ${n + 1}. ${item.stem}`, { apart: true }),
    ...item.choices.map((text, at) => line(`${letter(language, at)}. ${text}`)),
  ]);
  return { lines, items };
}

/** Keys in a table at the end: numbers above letters. */
function grid(language: Language): Laid {
  const items = single(language.items).map(({ why: _w, points: _p, ...i }) => i);
  const lines: Line[] = items.flatMap((item, n): Line[] => [
    line(`${n + 1}. ${item.stem}`, { apart: true }),
    ...item.choices.map((text, at) => line(`${upper(language, at)}. ${text}`)),
  ]);
  const table = [items.map((_, n) => String(n + 1)), items.map((i) => keyLetters(language, i, upper))];
  return { lines: [...lines, heading(language.words.key), { pieces: [], table }], items };
}

/** Answers in a file of their own. */
function apart(language: Language): Laid {
  const laid = listAtEnd(language);
  const at = laid.lines.findIndex((l) => l.pieces[0]?.text === language.words.key);
  return { lines: laid.lines.slice(0, at), answers: laid.lines.slice(at), items: laid.items };
}

export const LAYOUTS: Readonly<Record<string, (language: Language) => Laid>> = {
  bold: marked({ bold: true }),
  'automatic-bold': marked({ bold: true }, true),
  'automatic-highlight': marked({ highlight: true }, true),
  underline: marked({ underline: true }),
  red: marked({ red: true }),
  labelled,
  'one-line': oneLine,
  'list-at-end': listAtEnd,
  chapters,
  inline,
  bullets,
  bare,
  front,
  grid,
  apart,
};
