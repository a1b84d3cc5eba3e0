import {
  AlignmentType,
  BorderStyle,
  HeadingLevel,
  HeightRule,
  ImageRun,
  ImportedXmlComponent,
  LineRuleType,
  Paragraph,
  Tab,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
  convertMillimetersToTwip,
  type FileChild,
  type IParagraphOptions,
  type IStylesOptions,
  type ParagraphChild,
} from 'docx';
import { mml2omml } from 'mathml2omml';
import { fitted, pictureAt, type ReadFile } from './pictures.ts';
import type { Block, Cell, Inline, Mark, Option, PaperStyle, Question } from './types.ts';
import { pointsWord } from './words.ts';

/** How paragraphs of a block stand on the page. */
interface Stand {
  /** Twips from the left margin. */
  readonly indent?: number;
  /** Stays on the page of what follows it. */
  readonly keepNext?: boolean;
  /** What goes before the text of the first paragraph, out of its column. */
  readonly before?: string;
  /** What goes after the text of the first paragraph. */
  readonly after?: string;
}

const COLUMN = 560;
const MARKS = { circle: '○ ', box: '□ ', line: '____ ', none: '' } as const;
/** Letters of which a text is read from right to left (Unicode: Hebrew, Arabic and their neighbours). */
const RIGHT_TO_LEFT =
  /^[^\p{L}]*[\p{Script=Hebrew}\p{Script=Arabic}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u;
const RULE = { style: BorderStyle.SINGLE, size: 4, color: '808080' } as const;
const NO_RULE = { style: BorderStyle.NONE, size: 0, color: 'auto' } as const;
const NO_RULES = {
  top: NO_RULE,
  bottom: NO_RULE,
  left: NO_RULE,
  right: NO_RULE,
  insideHorizontal: NO_RULE,
  insideVertical: NO_RULE,
};
const MONO = 'Consolas';

/** Fonts that word processors have; half points. */
export function styleOf({ large, plain }: PaperStyle, language: string | null): IStylesOptions {
  const line = plain ? 384 : large ? 360 : 300;
  return {
    default: {
      document: {
        run: {
          font: plain ? 'Verdana' : 'Georgia',
          size: large ? 36 : 22,
          ...(language === null ? {} : { language: { value: language } }),
        },
        paragraph: {
          spacing: { line, lineRule: LineRuleType.AUTO, after: 80 },
          alignment: AlignmentType.LEFT,
        },
      },
      heading1: { run: { bold: true, size: large ? 44 : 30 } },
      heading2: { run: { bold: true, size: large ? 38 : 25 }, paragraph: { spacing: { before: 240 } } },
    },
  };
}

/** Sets blocks as paragraphs and tables. */
export class DocxSetter {
  #pictures = 0;

  constructor(
    private readonly style: PaperStyle,
    private readonly read: ReadFile,
    private readonly room: { readonly width: number; readonly height: number },
  ) {}

  heading(text: string, level: 1 | 2): Paragraph {
    return new Paragraph({
      heading: level === 1 ? HeadingLevel.HEADING_1 : HeadingLevel.HEADING_2,
      keepNext: true,
      bidirectional: RIGHT_TO_LEFT.test(text),
      children: [new TextRun(text)],
    });
  }

  line = (text: string): Paragraph => this.#paragraph([{ kind: 'text', text, marks: [] }], 'normal', {});

  /** A question stays on one page: all its paragraphs are kept with the next, but for the last. */
  question({ number, points, blocks }: Question): FileChild[] {
    const [first, ...rest] = blocks;
    const before = `${number}.`;
    const after = points > 0 ? `  (${pointsWord(points)})` : '';
    const stand = (last: boolean): Stand => ({ indent: COLUMN, keepNext: !last });
    const head =
      first?.kind === 'text'
        ? this.block(first, { ...stand(rest.length === 0), before, after })
        : [
            this.#paragraph([], 'normal', { indent: COLUMN, keepNext: true, before, after: after.trim() }),
            ...(first ? this.block(first, stand(rest.length === 0)) : []),
          ];
    return [...head, ...rest.flatMap((b, at) => this.block(b, stand(at === rest.length - 1))), this.gap()];
  }

  gap = (): Paragraph => new Paragraph({ spacing: { after: 120 }, children: [] });

  blocks(blocks: readonly Block[], stand: Stand = {}): FileChild[] {
    return blocks.flatMap((b) => this.block(b, stand));
  }

  block(block: Block, stand: Stand): FileChild[] {
    const indent = stand.indent ?? 0;
    const under: Stand = { indent: indent + COLUMN, keepNext: stand.keepNext ?? false };
    switch (block.kind) {
      case 'text':
        return [this.#paragraph(block.inlines, block.style, stand)];
      case 'list':
        return block.items.flatMap((item, at) =>
          this.#labelled(item, block.ordered ? `${at + 1}.` : '•', under),
        );
      case 'table':
        return [this.#table(block.rows)];
      case 'options':
        return this.#options(block.options, MARKS[block.mark], indent, stand.keepNext ?? false);
      case 'columns':
        return [
          this.#sideBySide(
            this.#options(block.left, MARKS.line, 0, true),
            this.#options(block.right, MARKS.none, 0, true),
          ),
        ];
      case 'lines':
        return [this.#lines(block.count)];
      case 'frame':
        return [this.#frame(block.height)];
    }
  }

  #options(options: readonly Option[], mark: string, indent: number, keepNext: boolean): FileChild[] {
    return options.flatMap(({ label, blocks }, at) =>
      this.#labelled(blocks, `${mark}${label}`, {
        indent: indent + COLUMN + (mark.length > 2 ? COLUMN : 0),
        keepNext: keepNext || at < options.length - 1,
      }),
    );
  }

  /** Blocks under a label that stands out of their column. */
  #labelled(blocks: readonly Block[], before: string, stand: Stand): FileChild[] {
    const [first, ...rest] = blocks;
    if (first?.kind === 'text')
      return [...this.block(first, { ...stand, before }), ...rest.flatMap((b) => this.block(b, stand))];
    return [this.#paragraph([], 'normal', { ...stand, before }), ...this.blocks(blocks, stand)];
  }

  #paragraph(
    inlines: readonly Inline[],
    style: Extract<Block, { kind: 'text' }>['style'],
    { indent = 0, keepNext = false, before, after }: Stand,
  ): Paragraph {
    const words = inlines.map((i) => (i.kind === 'text' ? i.text : '')).join('');
    const from = style === 'quote' ? indent + COLUMN : indent;
    const options: IParagraphOptions = {
      keepNext,
      keepLines: true,
      bidirectional: RIGHT_TO_LEFT.test(words),
      ...(from > 0 || before !== undefined
        ? { indent: { left: from, ...(before === undefined ? {} : { hanging: COLUMN }) } }
        : {}),
      children: [
        ...(before === undefined ? [] : [new TextRun({ children: [before, new Tab()] })]),
        ...inlines.flatMap((i) => this.#inline(i, style)),
        ...(after ? [new TextRun(after)] : []),
      ],
    };
    return new Paragraph(options);
  }

  #inline(inline: Inline, style: Extract<Block, { kind: 'text' }>['style']): ParagraphChild[] {
    switch (inline.kind) {
      case 'text':
        return [this.#run(inline.text, inline.marks, style)];
      case 'math':
        return [formula(inline.markup) ?? new TextRun(inline.plain)];
      case 'picture':
        return [this.#picture(inline)];
      case 'blank':
        return [new TextRun('_'.repeat(inline.letters))];
      case 'break':
        return [new TextRun({ break: 1 })];
    }
  }

  #run(text: string, marks: readonly Mark[], style: Extract<Block, { kind: 'text' }>['style']): TextRun {
    const has = (mark: Mark): boolean => marks.includes(mark);
    // Slanted letters are hard to read for some; they are bold then.
    const { plain } = this.style;
    return new TextRun({
      text,
      bold: has('bold') || style === 'heading' || (plain && has('italic')),
      italics: !plain && has('italic'),
      ...(has('underline') ? { underline: {} } : {}),
      strike: has('strike'),
      subScript: has('sub'),
      superScript: has('super'),
      rightToLeft: RIGHT_TO_LEFT.test(text),
      ...(has('code') || style === 'code' ? { font: MONO } : {}),
    });
  }

  #picture({ src, alt, width, height }: Extract<Inline, { kind: 'picture' }>): ParagraphChild {
    const found = pictureAt(src, this.read);
    // There is no place for this type in the format (ECMA-376, part 1, 15.2.14).
    if (!found || found.type === 'webp') return new TextRun(`[${alt || src}]`);
    const id = String(++this.#pictures);
    return new ImageRun({
      type: found.type,
      data: found.bytes,
      transformation: fitted(found, { width, height }, this.room),
      altText: { id, name: `Picture ${id}`, title: '', description: alt },
    });
  }

  #table(rows: readonly (readonly Cell[])[]): Table {
    return new Table({
      rows: rows
        .filter((r) => r.length > 0)
        .map(
          (cells) =>
            new TableRow({
              cantSplit: true,
              children: cells.map(
                ({ blocks, columns, rows: down }) =>
                  new TableCell({
                    columnSpan: columns,
                    rowSpan: down,
                    children: ended(this.blocks(blocks)),
                  }),
              ),
            }),
        ),
    });
  }

  #sideBySide(left: readonly FileChild[], right: readonly FileChild[]): Table {
    const cell = (children: readonly FileChild[]): TableCell =>
      new TableCell({ children: ended(children), width: { size: 50, type: WidthType.PERCENTAGE } });
    return new Table({
      width: { size: 100, type: WidthType.PERCENTAGE },
      borders: NO_RULES,
      rows: [new TableRow({ cantSplit: true, children: [cell(left), cell(right)] })],
    });
  }

  /** Ruled lines, as rows of a table, so that each is as high as the others. */
  #lines(count: number): Table {
    const height = convertMillimetersToTwip(this.style.large ? 14 : 9);
    return new Table({
      width: { size: 100, type: WidthType.PERCENTAGE },
      borders: { ...NO_RULES, bottom: RULE, insideHorizontal: RULE },
      rows: Array.from(
        { length: count },
        () =>
          new TableRow({
            cantSplit: true,
            height: { value: height, rule: HeightRule.EXACT },
            children: [new TableCell({ children: [new Paragraph({ keepNext: true, children: [] })] })],
          }),
      ),
    });
  }

  #frame(height: number): Table {
    return new Table({
      width: { size: 100, type: WidthType.PERCENTAGE },
      rows: [
        new TableRow({
          height: { value: convertMillimetersToTwip(height), rule: HeightRule.EXACT },
          children: [new TableCell({ children: [new Paragraph({ children: [] })] })],
        }),
      ],
    });
  }
}

/** A cell has to end with a paragraph (ECMA-376, part 1, 17.4.65). */
export function ended(children: readonly FileChild[]): (Paragraph | Table)[] {
  const all = children as readonly (Paragraph | Table)[];
  return all.at(-1) instanceof Paragraph ? [...all] : [...all, new Paragraph({ children: [] })];
}

/** MathML as the mathematics of word processors; null where that cannot be done. */
function formula(markup: string): ParagraphChild | null {
  try {
    const imported: unknown = ImportedXmlComponent.fromXmlString(mml2omml(markup, { disableDecode: true }));
    return imported as ParagraphChild;
  } catch {
    return null;
  }
}
