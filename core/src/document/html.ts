import { buildContent } from '../content/build.ts';
import { parseHtml } from '../content/html.ts';
import { decodeBase64 } from '../model/base64.ts';
import { finding, findingWith, type Finding } from '../model/finding.ts';
import { isElement, textOf, type XmlElement, type XmlNode } from '../xml/tree.ts';
import {
  PLAIN_LOOK,
  Stream,
  textRun,
  type BlockDocument,
  type Look,
  type Paragraph,
  type Run,
} from './block.ts';
import { ListCounter, type LevelFormat } from './numbering.ts';
import type { Pictures } from './pictures.ts';

/**
 * A web page as a document: `<ol><li>Which light …`. Scripts, styles and frames are passed over, nothing is fetched.
 * @param pictureAt the bytes of a file beside the page; null where there is none
 */
export function readHtml(
  path: string,
  html: string,
  pictures: Pictures,
  pictureAt: (address: string) => Uint8Array | null,
): BlockDocument {
  const reader = new Reader(path, pictures, pictureAt);
  reader.nodes(parseHtml(html), { look: PLAIN_LOOK, heading: 0, list: null, label: '' });
  reader.flush();
  const { stream, title, findings } = reader;
  return { path, title, wraps: false, blocks: stream.blocks, files: pictures.files, findings };
}

interface List {
  readonly id: string;
  readonly level: number;
  readonly formats: readonly LevelFormat[];
}
interface Inside {
  readonly look: Look;
  readonly heading: number;
  readonly list: List | null;
  /** The label of the list item it stands in, until a paragraph bears it. */
  readonly label: string;
}

const BLOCKS: ReadonlySet<string> = new Set(
  [
    'address article aside blockquote body center dd div dl dt fieldset figcaption figure',
    'footer form h1 h2 h3 h4 h5 h6 header hgroup html hr legend li main nav ol p pre',
    'section summary details table ul',
  ]
    .join(' ')
    .split(' '),
);
const PASSED: ReadonlySet<string> = new Set(
  'script style head noscript template iframe object embed svg canvas select button input textarea audio video'.split(
    ' ',
  ),
);
const ACTIVE: ReadonlySet<string> = new Set(['script', 'iframe', 'object', 'embed']);
/** HTML, "The ol element": its type attribute. */
const TYPES: Readonly<Record<string, string>> = {
  a: 'lowerLetter',
  A: 'upperLetter',
  i: 'lowerRoman',
  I: 'upperRoman',
  '1': 'decimal',
};

class Reader {
  readonly stream = new Stream();
  readonly findings: Finding[] = [];
  title = '';
  private runs: Run[] = [];
  private over: Partial<Paragraph> = {};
  private readonly counter = new ListCounter();
  private lists = 0;
  /** Where paragraphs go while a table is read. */
  private cells: Paragraph[] | null = null;
  private label = '';

  constructor(
    private readonly path: string,
    private readonly pictures: Pictures,
    private readonly pictureAt: (address: string) => Uint8Array | null,
  ) {}

  /** Ends the paragraph that is open. */
  flush(): void {
    const runs = trimmed(this.runs);
    this.runs = [];
    if (runs.length === 0) return;
    const over = { ...this.over, label: this.label };
    this.label = '';
    if (this.cells) {
      const made = this.stream.cell(runs, over);
      if (made) this.cells.push(made);
    } else this.stream.paragraph(runs, over);
  }

  nodes(nodes: readonly XmlNode[], inside: Inside): void {
    for (const node of nodes) {
      if (isElement(node)) this.element(node, inside);
      else this.text(node.text, inside);
    }
  }

  private text(text: string, { look, heading, list }: Inside): void {
    if (this.runs.length === 0) this.over = { heading, level: list?.level ?? 0 };
    this.runs.push(textRun(text.replace(/[ \t\r\n\f]+/gu, ' '), look));
  }

  private element(one: XmlElement, inside: Inside): void {
    const { name } = one;
    if (name === 'title' || name === 'head') {
      const title = name === 'title' ? one : find(one, 'title');
      if (title && this.title === '') this.title = textOf(title).replace(/\s+/gu, ' ').trim();
      return;
    }
    if (PASSED.has(name)) {
      if (ACTIVE.has(name))
        this.findings.push(
          finding('active-content-removed', 'warning', { path: this.path }, { what: `<${name}>` }),
        );
      return;
    }
    if (name === 'br') return void this.runs.push({ kind: 'break' });
    if (name === 'img') return this.picture(one);
    if (name === 'math') return this.math(one);
    if (name === 'table') return this.table(one, inside);
    const next = { ...inside, look: lookOf(one, inside.look) };
    if (!BLOCKS.has(name)) return this.nodes(one.children, next);
    this.flush();
    const heading = /^h([1-6])$/u.exec(name);
    if (name === 'ol' || name === 'ul') this.list(one, next);
    else if (heading)
      this.nodes(one.children, { ...next, heading: Number(heading[1]), look: { ...next.look, color: null } });
    else this.nodes(one.children, next);
    this.flush();
  }

  private list(one: XmlElement, inside: Inside): void {
    const level = inside.list ? inside.list.level + 1 : 0;
    const style = /list-style(?:-type)?\s*:\s*([a-z-]+)/u.exec(one.attrs['style'] ?? '')?.[1] ?? '';
    const format =
      one.name === 'ul' ? 'bullet' : (STYLES[style] ?? TYPES[one.attrs['type'] ?? '1'] ?? 'decimal');
    const start = Number(one.attrs['start'] ?? '1');
    const formats = Array.from({ length: level + 1 }, (): LevelFormat => ({
      format,
      text: format === 'bullet' ? '•' : `%${level + 1}.`,
      start: Number.isInteger(start) ? start : 1,
    }));
    this.lists += 1;
    const list: List = { id: `list ${this.lists}`, level, formats };
    for (const li of one.children) {
      if (!isElement(li)) continue;
      if (li.name !== 'li') {
        this.element(li, { ...inside, list });
        continue;
      }
      this.flush();
      this.label = this.counter.next(list.id, level, formats);
      this.nodes(li.children, { ...inside, look: lookOf(li, inside.look), list });
      this.flush();
      this.label = '';
    }
  }

  private table(one: XmlElement, inside: Inside): void {
    this.flush();
    // A table in a cell is read as what it says, row by row.
    if (this.cells) {
      this.nodes(one.children, inside);
      this.flush();
      return;
    }
    const rows: Paragraph[][][] = [];
    for (const tr of findAll(one, 'tr')) {
      const row: Paragraph[][] = [];
      for (const cell of tr.children) {
        if (!isElement(cell) || (cell.name !== 'td' && cell.name !== 'th')) continue;
        this.cells = [];
        this.nodes(cell.children, { ...inside, look: lookOf(cell, inside.look) });
        this.flush();
        row.push(this.cells);
      }
      rows.push(row);
    }
    this.cells = null;
    this.stream.table(rows);
  }

  private picture(one: XmlElement): void {
    const address = (one.attrs['src'] ?? '').trim();
    const alt = one.attrs['alt'] ?? '';
    const data = /^data:[^,]*;base64,(.*)$/su.exec(address);
    const size = (name: string): number | undefined =>
      Number(one.attrs[name]) > 0 ? Number(one.attrs[name]) : undefined;
    const over = { alt, width: size('width'), height: size('height') } as {
      alt: string;
      width: number;
      height: number;
    };
    const run = data
      ? this.pictures.take(decodeBase64(data[1]!), 'data:', over)
      : /^(?:[a-z][a-z0-9+.-]*:|\/\/)/iu.test(address)
        ? this.pictures.remote(address)
        : this.pictures.take(this.pictureAt(address), address, over);
    if (run) this.runs.push(run);
  }

  private math(one: XmlElement): void {
    const [node] = buildContent([one], {
      resolve: (address) => address,
      note: (code, severity, ...[params]) =>
        void this.findings.push(findingWith(code, severity, { path: this.path }, (params ?? {}) as never)),
    });
    if (node) this.runs.push({ kind: 'math', node });
  }
}

const STYLES: Readonly<Record<string, string>> = {
  'lower-alpha': 'lowerLetter',
  'lower-latin': 'lowerLetter',
  'upper-alpha': 'upperLetter',
  'upper-latin': 'upperLetter',
  'lower-roman': 'lowerRoman',
  'upper-roman': 'upperRoman',
  decimal: 'decimal',
  disc: 'bullet',
  circle: 'bullet',
  square: 'bullet',
  none: 'none',
};

function lookOf(one: XmlElement, look: Look): Look {
  const style = (one.attrs['style'] ?? '').toLowerCase();
  const said = (property: string): string | null =>
    new RegExp(`(?:^|;)\\s*${property}\\s*:\\s*([^;]+)`, 'u').exec(style)?.[1]?.trim() ?? null;
  const weight = said('font-weight');
  const colour = said('color') ?? (one.name === 'font' ? (one.attrs['color'] ?? null) : null);
  const back = said('background-color') ?? said('background');
  const line = said('text-decoration') ?? said('text-decoration-line') ?? '';
  return {
    bold:
      weight === null
        ? look.bold || one.name === 'b' || one.name === 'strong'
        : weight === 'bold' || weight === 'bolder' || Number(weight) >= 600,
    italic: look.italic || one.name === 'i' || one.name === 'em' || said('font-style') === 'italic',
    underline: look.underline || one.name === 'u' || one.name === 'ins' || line.includes('underline'),
    strike:
      look.strike ||
      one.name === 's' ||
      one.name === 'strike' ||
      one.name === 'del' ||
      line.includes('line-through'),
    highlight: one.name === 'mark' ? 'yellow' : back === null ? look.highlight : noColour(back) ? null : back,
    color:
      colour === null
        ? look.color
        : noColour(colour) || /^(?:black|#0{3,6}|windowtext|rgb\(0, ?0, ?0\))$/u.test(colour)
          ? null
          : colour,
    script:
      one.name === 'sub' || said('vertical-align') === 'sub'
        ? 'sub'
        : one.name === 'sup' || said('vertical-align') === 'super'
          ? 'sup'
          : look.script,
  };
}
const noColour = (value: string): boolean =>
  /^(?:transparent|none|inherit|initial|white|#f{3,6}|rgb\(255, ?255, ?255\)|auto)$/u.test(value.trim());

function trimmed(runs: readonly Run[]): Run[] {
  // One blank between words, whatever elements they stand in.
  const out: Run[] = [];
  let blank = true;
  for (const run of runs) {
    if (run.kind !== 'text') {
      out.push(run);
      blank = run.kind === 'break';
      continue;
    }
    const text = blank ? run.text.replace(/^ +/u, '') : run.text;
    if (text === '') continue;
    out.push({ ...run, text });
    blank = text.endsWith(' ');
  }
  return out.some((r) => r.kind !== 'break' && (r.kind !== 'text' || r.text.trim() !== '')) ? out : [];
}

function find(one: XmlElement, name: string): XmlElement | null {
  for (const node of one.children)
    if (isElement(node)) return node.name === name ? node : (find(node, name) ?? null);
  return null;
}
const findAll = (one: XmlElement, name: string): XmlElement[] =>
  one.children
    .filter(isElement)
    .flatMap((c) => (c.name === name ? [c] : c.name === 'table' ? [] : findAll(c, name)));
