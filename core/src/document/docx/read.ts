import type { Allowance } from '../../intake/archive.ts';
import type { Platform } from '../../intake/platform.ts';
import { finding, refuse } from '../../model/finding.ts';
import { child, descendants, elements, isElement, textOf, type XmlElement } from '../../xml/tree.ts';
import { Stream, textRun, type BlockDocument, type Look, type Paragraph, type Run } from '../block.ts';
import { ListCounter } from '../numbering.ts';
import { Pictures } from '../pictures.ts';
import { mathOf } from './omml.ts';
import { attr, openParts, relationshipsOf, type Parts } from '../parts.ts';
import { lookIn, readNumbering, readStyles, type Numbering, type Styles } from './styles.ts';

/**
 * Word-processing files of ECMA-376: `<w:p><w:r><w:t>1. Which light …`. Nothing in them is run, and nothing they
 * refer to outside is fetched.
 * @throws Refusal where the archive or its main part cannot be read
 */
export async function readDocx(
  path: string,
  bytes: Uint8Array,
  platform: Platform,
  allowance?: Allowance,
): Promise<BlockDocument> {
  const parts = await openParts(path, bytes, platform, allowance);
  const main = mainPart(parts);
  const root = parts.xml(main);
  const body = root && child(root, 'body');
  if (!body) return refuse('document-damaged', { path }, { detail: 'no document in it' });
  const { findings } = parts;
  if ([...parts.names].some((n) => /vbaProject\.bin$|vbaData\.xml$/iu.test(n)))
    findings.push(finding('active-content-removed', 'warning', { path }, { what: 'a macro' }));
  if ([...parts.names].some((n) => /(?:^|\/)(?:embeddings|activeX)\//iu.test(n)))
    findings.push(finding('active-content-removed', 'note', { path }, { what: 'an embedded object' }));
  const folder = main.slice(0, main.lastIndexOf('/') + 1);
  const reader = new Reader(
    parts,
    main,
    readStyles(parts.xml(`${folder}styles.xml`)),
    readNumbering(parts.xml(`${folder}numbering.xml`)),
    new Pictures(path, platform, (f) => void findings.push(f)),
  );
  reader.blocks(body);
  return {
    path,
    title: titleOf(parts),
    wraps: false,
    blocks: reader.stream.blocks,
    files: reader.pictures.files,
    findings,
  };
}

function mainPart(parts: Parts): string {
  const root = [...relationshipsOf(parts, '')].find(([, r]) => r.type.endsWith('/officeDocument'));
  return root && parts.names.has(root[1].target) ? root[1].target : 'word/document.xml';
}

function titleOf(parts: Parts): string {
  const core = parts.names.has('docProps/core.xml') ? parts.xml('docProps/core.xml') : null;
  const title = core && child(core, 'title');
  return title ? textOf(title).trim() : '';
}

/** Elements whose content is gone, or was never meant to be read. */
const PASSED: ReadonlySet<string> = new Set([
  'del',
  'moveFrom',
  'instrText',
  'delText',
  'fldData',
  'annotationRef',
  'footnoteReference',
  'endnoteReference',
  'commentReference',
  'rPr',
  'pPr',
  'tblPr',
  'tblGrid',
  'trPr',
  'tcPr',
  'sectPr',
  'sdtPr',
  'sdtEndPr',
  'bookmarkStart',
  'bookmarkEnd',
  'proofErr',
]);

class Reader {
  readonly stream = new Stream();
  private readonly counter = new ListCounter();
  private readonly relations: ReturnType<typeof relationshipsOf>;
  private page = 1;

  constructor(
    private readonly parts: Parts,
    main: string,
    private readonly styles: Styles,
    private readonly numbering: Numbering,
    readonly pictures: Pictures,
  ) {
    this.relations = relationshipsOf(parts, main);
  }

  blocks(parent: XmlElement): void {
    for (const one of elements(parent)) {
      if (one.name === 'p') {
        const { runs, over } = this.paragraph(one);
        this.stream.paragraph(runs, over);
      } else if (one.name === 'tbl') this.stream.table(this.rows(one), { page: this.page });
      else if (!PASSED.has(one.name))
        this.blocks(one.name === 'sdt' ? (child(one, 'sdtContent') ?? one) : one);
    }
  }

  private rows(table: XmlElement): Paragraph[][][] {
    const rows: Paragraph[][][] = [];
    for (const tr of descend(table, 'tr')) rows.push(descend(tr, 'tc').map((tc) => this.cell(tc)));
    return rows;
  }

  /** The paragraphs of a cell; those of a table in it follow in reading order. */
  private cell(parent: XmlElement): Paragraph[] {
    return elements(parent).flatMap((one): Paragraph[] => {
      if (one.name === 'p') {
        const { runs, over } = this.paragraph(one);
        const made = this.stream.cell(runs, over);
        return made ? [made] : [];
      }
      return PASSED.has(one.name) ? [] : this.cell(one);
    });
  }

  private paragraph(p: XmlElement): { runs: Run[]; over: Partial<Paragraph> } {
    const pPr = child(p, 'pPr');
    const styleId = pPr && child(pPr, 'pStyle');
    const style = this.styles.paragraph(styleId ? attr(styleId, 'val') : null);
    const outline = pPr && child(pPr, 'outlineLvl');
    const heading = outline ? headingLevel(attr(outline, 'val')) : style.heading;
    const runs: Run[] = [];
    const look = { ...this.styles.base, ...style.look };
    this.runs(p, heading > 0 ? { ...look, color: null } : look, runs);
    const { label, level } = this.label(pPr, style);
    return { runs, over: { heading, label: runs.length > 0 ? label : '', level, page: this.page } };
  }

  private label(
    pPr: XmlElement | null,
    style: ReturnType<Styles['paragraph']>,
  ): { label: string; level: number } {
    const numPr = pPr && child(pPr, 'numPr');
    const numId = numPr && child(numPr, 'numId');
    const ilvl = numPr && child(numPr, 'ilvl');
    const id = numId ? attr(numId, 'val') : style.numId;
    const level = Math.min(8, ilvl ? Number(attr(ilvl, 'val')) || 0 : style.level);
    if (id === null || id === '0') return { label: '', level: 0 };
    const list = this.numbering.list(id);
    return { label: list ? this.counter.next(list.counts, level, list.levels) : '', level };
  }

  private runs(parent: XmlElement, look: Look, out: Run[]): void {
    for (const one of parent.children) if (isElement(one)) this.run(one, parent, look, out);
  }

  private run(one: XmlElement, parent: XmlElement, look: Look, out: Run[]): void {
    switch (one.name) {
      case 'r': {
        const rPr = child(one, 'rPr');
        const rStyle = rPr && child(rPr, 'rStyle');
        this.runs(
          one,
          { ...look, ...this.styles.run(rStyle ? attr(rStyle, 'val') : null), ...lookIn(rPr) },
          out,
        );
        return;
      }
      case 't':
        out.push(textRun(textOf(one), look));
        return;
      case 'tab':
        if (parent.name === 'r') out.push(textRun('\t', look));
        return;
      case 'noBreakHyphen':
        out.push(textRun('\u2011', look));
        return;
      case 'sym':
        out.push(textRun(symbol(attr(one, 'char')), look));
        return;
      case 'br':
      case 'cr':
        if (attr(one, 'type') === 'page') this.page += 1;
        else out.push({ kind: 'break' });
        return;
      case 'lastRenderedPageBreak':
        this.page += 1;
        return;
      case 'drawing':
      case 'pict':
      case 'object':
        this.picture(one, out);
        for (const box of descendants(one, 'txbxContent').slice(0, 1)) this.textBox(box, look, out);
        return;
      case 'AlternateContent': {
        // The same thing twice, in a newer and in an older form.
        const form = child(one, 'Choice') ?? child(one, 'Fallback');
        if (form) this.runs(form, look, out);
        return;
      }
      case 'oMath':
      case 'oMathPara':
        out.push({ kind: 'math', node: mathOf(one) });
        return;
      default:
        if (!PASSED.has(one.name)) this.runs(one, look, out);
    }
  }

  private textBox(box: XmlElement, look: Look, out: Run[]): void {
    for (const p of descendants(box, 'p')) {
      if (out.length > 0) out.push({ kind: 'break' });
      this.runs(p, look, out);
    }
  }

  private picture(holder: XmlElement, out: Run[]): void {
    const alt = descendants(holder, 'docPr')[0];
    const extent = descendants(holder, 'extent')[0];
    for (const blip of [...descendants(holder, 'blip'), ...descendants(holder, 'imagedata')]) {
      const id = attr(blip, 'embed') ?? attr(blip, 'link') ?? attr(blip, 'id');
      const relation = id === null ? undefined : this.relations.get(id);
      if (!relation) continue;
      const run = relation.external
        ? this.pictures.remote(relation.target)
        : this.pictures.take(this.parts.bytes(relation.target), relation.target, {
            alt: (alt && (attr(alt, 'descr') || attr(alt, 'title'))) ?? '',
            width: extent ? pixels(attr(extent, 'cx')) : undefined,
            height: extent ? pixels(attr(extent, 'cy')) : undefined,
          } as Partial<{ alt: string; width: number; height: number }>);
      if (run) out.push(run);
    }
  }
}

/** Elements of a name, in content controls too, but not inside others of it. */
function descend(parent: XmlElement, name: string): XmlElement[] {
  return elements(parent).flatMap((one) =>
    one.name === name
      ? [one]
      : PASSED.has(one.name) || one.name === 'tbl' || one.name === 'p'
        ? []
        : descend(one, name),
  );
}

const headingLevel = (value: string | null): number => {
  const level = Number(value);
  return level >= 0 && level < 6 ? level + 1 : 0;
};
/** English Metric Units, 9525 of them a pixel at 96 to the inch (ECMA-376, 20.1.10.16). */
const pixels = (emu: string | null): number | undefined =>
  Number(emu) > 0 ? Math.round(Number(emu) / 9525) : undefined;

/** Signs of the symbol fonts that mark what is right. */
const SYMBOLS: Readonly<Record<string, string>> = {
  F0FC: '✓',
  F0FE: '☑',
  F0A8: '☐',
  F06F: '☐',
  F0B7: '•',
  F0D8: '➢',
  F052: '☑',
  F0A3: '☐',
  F0B0: '°',
  F0B1: '±',
  F0B4: '×',
};
const symbol = (code: string | null): string => SYMBOLS[(code ?? '').toUpperCase()] ?? '';
