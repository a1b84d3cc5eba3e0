import type { Platform } from '../../intake/platform.ts';
import { finding, type Finding } from '../../model/finding.ts';
import {
  PLAIN_LOOK,
  Stream,
  textRun,
  type BlockDocument,
  type Look,
  type Paragraph,
  type Run,
} from '../block.ts';
import { Pictures } from '../pictures.ts';
import { pageOfCharset, SYMBOL_CHARSET, textIn } from './codePages.ts';
import { tokens, type Token } from './tokens.ts';

/**
 * Rich Text Format 1.9.1: `{\rtf1\ansi{\b 1.} Which light …\par}`. Read in one pass with a stack of its own, so that no
 * depth is too deep; objects and macros are passed over.
 */
export function readRtf(path: string, bytes: Uint8Array, platform: Platform): BlockDocument {
  const findings: Finding[] = [];
  const pictures = new Pictures(path, platform, (f) => void findings.push(f));
  const reader = new Reader(bytes, pictures);
  for (const token of tokens(bytes)) reader.take(token);
  reader.end();
  if (reader.objects)
    findings.push(finding('active-content-removed', 'note', { path }, { what: 'an embedded object' }));
  return {
    path,
    title: reader.title.trim(),
    wraps: false,
    blocks: reader.stream.blocks,
    files: pictures.files,
    findings,
  };
}

/** Where text goes. */
type Destination = 'body' | 'skip' | 'fonts' | 'colours' | 'styles' | 'label' | 'picture' | 'title';

interface State {
  look: Look;
  /** What is said of letters of other scripts, which have words of their own ("Associated Character Properties"). */
  other: Partial<Look>;
  to: Destination;
  font: number;
  /** Characters that stand behind a Unicode one for readers that do not know it. */
  skips: number;
}

const SKIPPED: ReadonlySet<string> = new Set(
  [
    'info header headerl headerr headerf footer footerl footerr footerf footnote',
    'annotation fldinst objdata objclass nonshppict listtable listoverridetable rsidtbl',
    'generator themedata colorschememapping latentstyles datastore xmlnstbl bkmkstart',
    'bkmkend mmathPr pgdsctbl filetbl revtbl template pnseclvl',
  ]
    .join(' ')
    .split(' '),
);
const SIGNS: Readonly<Record<string, string>> = {
  emdash: '—',
  endash: '–',
  emspace: ' ',
  enspace: ' ',
  lquote: '‘',
  rquote: '’',
  ldblquote: '“',
  rdblquote: '”',
  bullet: '•',
  tab: '\t',
  '~': '\u00A0',
  _: '\u2011',
  '-': '',
  '{': '{',
  '}': '}',
  '\\': '\\',
};

class Reader {
  readonly stream = new Stream();
  title = '';
  objects = false;
  private state: State = { look: PLAIN_LOOK, other: {}, to: 'body', font: 0, skips: 1 };
  private readonly stack: State[] = [];
  private page = 1252;
  private readonly fonts = new Map<number, number>();
  private readonly colours: (string | null)[] = [];
  private colour: { red: number; green: number; blue: number } | null = null;
  private readonly headings = new Map<number, number>();
  private style = { number: 0, name: '' };
  private pending: number[] = [];
  private passing = 0;
  private starred = false;
  /** The word that opens a group says where it leads. */
  private opening = false;
  private runs: Run[] = [];
  private label = '';
  private heading = 0;
  private level = 0;
  private pageNumber = 1;
  private inTable = false;
  private row: Paragraph[][] = [];
  private cell: Paragraph[] = [];
  private rows: Paragraph[][][] = [];
  private picture: { hex: string[]; binary: Uint8Array | null; width: number; height: number } = {
    hex: [],
    binary: null,
    width: 0,
    height: 0,
  };

  constructor(
    private readonly bytes: Uint8Array,
    private readonly pictures: Pictures,
  ) {}

  take(token: Token): void {
    switch (token.type) {
      case 'open':
        this.flush();
        this.stack.push({ ...this.state });
        this.opening = true;
        this.starred = false;
        return;
      case 'close':
        this.flush();
        this.close();
        return;
      case 'byte':
        if (this.passing > 0) this.passing -= 1;
        else this.pending.push(token.byte);
        this.opening = false;
        return;
      case 'text':
        this.plain(token.from, token.to);
        this.opening = false;
        return;
      case 'binary':
        if (this.state.to === 'picture') this.picture.binary = this.bytes.subarray(token.from, token.to);
        return;
      case 'word':
        this.flush();
        this.word(token.name, token.value);
    }
  }

  end(): void {
    this.flush();
    this.paragraph();
    this.endTable();
  }

  private plain(from: number, to: number): void {
    if (this.state.to === 'picture') {
      this.picture.hex.push(String.fromCharCode(...this.bytes.subarray(from, Math.min(to, from + 60_000))));
      for (let at = from + 60_000; at < to; at += 60_000)
        this.picture.hex.push(String.fromCharCode(...this.bytes.subarray(at, Math.min(to, at + 60_000))));
      return;
    }
    const skipped = Math.min(this.passing, to - from);
    this.passing -= skipped;
    for (let at = from + skipped; at < to; at++) this.pending.push(this.bytes[at]!);
  }

  /** Bytes that were waiting for their code page become text. */
  private flush(): void {
    if (this.pending.length === 0) return;
    const charset = this.fonts.get(this.state.font) ?? 0;
    const page = pageOfCharset(charset) ?? this.page;
    const text =
      charset === SYMBOL_CHARSET && this.state.to !== 'fonts'
        ? symbols(this.pending)
        : textIn(this.pending, page);
    this.pending = [];
    this.text(text);
  }

  private text(text: string): void {
    switch (this.state.to) {
      case 'body':
        this.runs.push(
          textRun(
            text,
            OTHER_SCRIPT.test(text) ? { ...this.state.look, ...this.state.other } : this.state.look,
          ),
        );
        return;
      case 'label':
        this.label += text;
        return;
      case 'title':
        this.title += text;
        return;
      case 'colours':
        for (const _ of text.matchAll(/;/gu)) {
          this.colours.push(this.colour && hex(this.colour));
          this.colour = null;
        }
        return;
      case 'styles': {
        this.style.name += text;
        const end = this.style.name.indexOf(';');
        if (end < 0) return;
        const found =
          /heading (\d)/iu.exec(this.style.name) ?? (/^\s*title/iu.test(this.style.name) ? ['', '1'] : null);
        if (found) this.headings.set(this.style.number, Math.min(6, Number(found[1])));
        this.style = { number: 0, name: '' };
        return;
      }
      default:
    }
  }

  private close(): void {
    const ended = this.state.to;
    const before = this.stack.pop();
    if (!before) return;
    if (ended === 'picture' && before.to !== 'picture') this.endPicture();
    // What a paragraph is told holds on after the group; only looks and destinations end with it.
    this.state = before;
    this.opening = false;
    this.passing = 0;
  }

  private word(name: string, value: number | null): void {
    const opening = this.opening;
    if (name === '*') {
      this.starred = true;
      return;
    }
    this.opening = false;
    if (opening && this.destination(name)) return;
    if (this.state.to === 'skip') return;
    if (name === 'u' && value !== null) {
      this.text(String.fromCharCode(value < 0 ? value + 65_536 : value));
      this.passing = this.state.skips;
      return;
    }
    const sign = SIGNS[name];
    if (sign !== undefined) {
      if (this.passing > 0) this.passing -= 1;
      else this.text(sign);
      return;
    }
    if (this.state.to === 'fonts') this.fontWord(name, value);
    else if (this.state.to === 'colours') this.colourWord(name, value);
    else if (this.state.to === 'styles') {
      if (name === 's') this.style = { number: value ?? 0, name: '' };
    } else if (this.state.to === 'picture') this.pictureWord(name, value);
    else if (!this.lookWord(name, value)) this.paragraphWord(name, value);
  }

  /** Whether a word at a group's start leads its text elsewhere. */
  private destination(name: string): boolean {
    const to: Destination | null =
      name === 'fonttbl'
        ? 'fonts'
        : name === 'colortbl'
          ? 'colours'
          : name === 'stylesheet'
            ? 'styles'
            : name === 'listtext' || name === 'pntext'
              ? 'label'
              : name === 'pict'
                ? 'picture'
                : name === 'title'
                  ? 'title'
                  : null;
    if (name === 'object') this.objects = true;
    if (name === 'info') return true;
    if (to !== null && (this.state.to !== 'skip' || to === 'title')) {
      this.state = { ...this.state, to };
      if (to === 'label') this.label = '';
      if (to === 'picture') this.picture = { hex: [], binary: null, width: 0, height: 0 };
      return true;
    }
    if (
      SKIPPED.has(name) ||
      INFO.has(name) ||
      (this.starred && name !== 'shppict' && this.state.to !== 'styles')
    ) {
      this.state = { ...this.state, to: 'skip' };
      return true;
    }
    return false;
  }

  private fontWord(name: string, value: number | null): void {
    if (name === 'f') this.state.font = value ?? 0;
    else if (name === 'fcharset') this.fonts.set(this.state.font, value ?? 0);
  }

  private colourWord(name: string, value: number | null): void {
    if (name === 'red' || name === 'green' || name === 'blue')
      this.colour = {
        ...(this.colour ?? { red: 0, green: 0, blue: 0 }),
        [name]: Math.max(0, Math.min(255, value ?? 0)),
      };
  }

  private pictureWord(name: string, value: number | null): void {
    // Twips, 15 of them a pixel at 96 to the inch.
    if (name === 'picwgoal') this.picture.width = Math.round((value ?? 0) / 15);
    else if (name === 'pichgoal') this.picture.height = Math.round((value ?? 0) / 15);
  }

  private lookWord(name: string, value: number | null): boolean {
    const on = value !== 0;
    const { look } = this.state;
    const set = (over: Partial<Look>): true => {
      this.state.look = { ...look, ...over };
      return true;
    };
    switch (name) {
      case 'b':
        return set({ bold: on });
      case 'i':
        return set({ italic: on });
      case 'ul':
      case 'uld':
      case 'uldb':
      case 'ulw':
      case 'ulth':
        return set({ underline: on });
      case 'ulnone':
        return set({ underline: false });
      case 'strike':
      case 'striked':
        return set({ strike: on });
      case 'sub':
        return set({ script: on ? 'sub' : null });
      case 'super':
        return set({ script: on ? 'sup' : null });
      case 'nosupersub':
        return set({ script: null });
      case 'highlight':
      case 'cb':
      case 'chcbpat':
        return set({ highlight: backColour(this.colours[value ?? 0] ?? null) });
      case 'cf':
        return set({ color: textColour(this.colours[value ?? 0] ?? null) });
      case 'plain':
        this.state.other = {};
        return set(PLAIN_LOOK);
      case 'ab':
        return this.setOther({ bold: on });
      case 'ai':
        return this.setOther({ italic: on });
      case 'aul':
        return this.setOther({ underline: on });
      case 'acf':
        return this.setOther({ color: textColour(this.colours[value ?? 0] ?? null) });
      case 'f':
        this.state.font = value ?? 0;
        return true;
      case 'uc':
        this.state.skips = Math.max(0, Math.min(10, value ?? 1));
        return true;
      default:
        return false;
    }
  }

  private setOther(over: Partial<Look>): true {
    this.state.other = { ...this.state.other, ...over };
    return true;
  }

  private paragraphWord(name: string, value: number | null): void {
    switch (name) {
      case 'ansicpg':
        this.page = value ?? 1252;
        return;
      case 'mac':
        this.page = 10_000;
        return;
      case 'pard':
        this.heading = 0;
        this.level = 0;
        this.inTable = false;
        return;
      case 's':
        this.heading = this.headings.get(value ?? -1) ?? 0;
        return;
      case 'outlinelevel':
        if (value !== null && value < 6) this.heading = value + 1;
        return;
      case 'ilvl':
        this.level = value ?? 0;
        return;
      case 'intbl':
        this.inTable = true;
        return;
      case 'line':
      case 'softline':
        this.runs.push({ kind: 'break' });
        return;
      case 'page':
      case 'sect':
        this.pageNumber += 1;
        this.paragraph();
        return;
      case 'par':
        this.paragraph();
        return;
      case 'cell':
      case 'nestcell':
        this.inTable = true;
        this.paragraph();
        this.row.push(this.cell);
        this.cell = [];
        return;
      case 'row':
        this.rows.push(this.row);
        this.row = [];
        return;
      default:
    }
  }

  private paragraph(): void {
    const runs = this.runs;
    const over = {
      heading: this.heading,
      label: this.label.trim(),
      level: this.level,
      page: this.pageNumber,
    };
    this.runs = [];
    this.label = '';
    if (this.inTable) {
      const made = this.stream.cell(runs, over);
      if (made) this.cell.push(made);
      return;
    }
    this.endTable();
    this.stream.paragraph(heading(runs, this.heading), over);
  }

  private endTable(): void {
    if (this.row.length > 0) this.rows.push(this.row);
    if (this.rows.length > 0) this.stream.table(this.rows, { page: this.pageNumber });
    this.rows = [];
    this.row = [];
  }

  private endPicture(): void {
    const { hex: digits, binary, width, height } = this.picture;
    const bytes = binary ?? bytesOf(digits.join(''));
    if (bytes.length === 0) return;
    const size = width > 0 && height > 0 ? { width, height } : {};
    const run = this.pictures.take(bytes, 'a picture', size);
    if (run) this.runs.push(run);
  }
}

const OTHER_SCRIPT = /[\u0590-\u08FF\u3040-\u30FF\u3400-\u9FFF\uAC00-\uD7AF]/u;
const INFO: ReadonlySet<string> = new Set(
  [
    'author operator keywords comment doccomm company manager category subject creatim',
    'revtim printim buptim hlinkbase',
  ]
    .join(' ')
    .split(' '),
);

const heading = (runs: Run[], level: number): Run[] =>
  level === 0 ? runs : runs.map((r) => (r.kind === 'text' ? { ...r, look: { ...r.look, color: null } } : r));

function bytesOf(digits: string): Uint8Array {
  const clean = digits.replace(/[^0-9a-f]/giu, '');
  const out = new Uint8Array(clean.length >> 1);
  for (let at = 0; at < out.length; at++) out[at] = Number.parseInt(clean.slice(at * 2, at * 2 + 2), 16);
  return out;
}

const hex = ({ red, green, blue }: { red: number; green: number; blue: number }): string =>
  `#${[red, green, blue].map((n) => n.toString(16).padStart(2, '0')).join('')}`;
const textColour = (colour: string | null): string | null => (colour === '#000000' ? null : colour);
const backColour = (colour: string | null): string | null => (colour === '#ffffff' ? null : colour);

/** Signs of the symbol font that mark things; all others are bullets. */
const symbols = (bytes: readonly number[]): string =>
  bytes
    .map((b) => (b === 0xfc || b === 0xfe ? '✓' : b < 0x80 && b > 0x20 ? String.fromCharCode(b) : '•'))
    .join('');
