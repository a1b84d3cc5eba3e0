import { buildContent } from '../../content/build.ts';
import type { Allowance } from '../../intake/archive.ts';
import type { Platform } from '../../intake/platform.ts';
import { finding, findingWith, refuse, type Finding } from '../../model/finding.ts';
import { child, descendants, elements, isElement, textOf, type XmlElement } from '../../xml/tree.ts';
import {
  PLAIN_LOOK,
  Stream,
  textRun,
  type BlockDocument,
  type Look,
  type Paragraph,
  type Run,
} from '../block.ts';
import { attr, openParts, type Parts } from '../parts.ts';
import { ListCounter } from '../numbering.ts';
import { Pictures } from '../pictures.ts';
import { readOdtStyles, type OdtStyles } from './styles.ts';

/**
 * OpenDocument texts (ODF 1.3): `<text:list><text:list-item><text:p>Which light …`.
 * @throws Refusal where the archive or its content cannot be read
 */
export async function readOdt(
  path: string,
  bytes: Uint8Array,
  platform: Platform,
  allowance?: Allowance,
): Promise<BlockDocument> {
  const parts = await openParts(path, bytes, platform, allowance);
  const manifest = parts.xml('META-INF/manifest.xml');
  if (manifest && descendants(manifest, 'encryption-data').length > 0) refuse('document-protected', { path });
  const content = parts.xml('content.xml');
  const body = content && descendants(content, 'body')[0];
  const text = body && child(body, 'text');
  if (!text) return refuse('document-damaged', { path }, { detail: 'no text in it' });
  const { findings } = parts;
  if ([...parts.names].some((n) => /^(?:Basic|Scripts)\//u.test(n)))
    findings.push(finding('active-content-removed', 'warning', { path }, { what: 'a macro' }));
  const styles = readOdtStyles([parts.names.has('styles.xml') ? parts.xml('styles.xml') : null, content]);
  const pictures = new Pictures(path, platform, (f) => void findings.push(f));
  const reader = new Reader(path, parts, styles, pictures, findings);
  reader.blocks(text, null);
  return {
    path,
    title: titleOf(parts),
    wraps: false,
    blocks: reader.stream.blocks,
    files: pictures.files,
    findings,
  };
}

function titleOf(parts: Parts): string {
  const meta = parts.names.has('meta.xml') ? parts.xml('meta.xml') : null;
  const title = meta && descendants(meta, 'title')[0];
  return title ? textOf(title).trim() : '';
}

const PASSED: ReadonlySet<string> = new Set([
  'tracked-changes',
  'sequence-decls',
  'annotation',
  'annotation-end',
  'note',
  'forms',
  'script',
  'event-listeners',
  'soft-page-break',
  'bookmark',
  'bookmark-start',
  'bookmark-end',
  'change',
  'change-start',
  'change-end',
  'title',
  'desc',
]);

interface List {
  readonly id: string;
  readonly style: string | null;
  readonly level: number;
}

class Reader {
  readonly stream = new Stream();
  private readonly counter = new ListCounter();
  private readonly ofStyle = new Map<string, string>();
  private lists = 0;
  private page = 1;

  constructor(
    private readonly path: string,
    private readonly parts: Parts,
    private readonly styles: OdtStyles,
    private readonly pictures: Pictures,
    private readonly findings: Finding[],
  ) {}

  blocks(parent: XmlElement, list: List | null): void {
    for (const one of elements(parent)) {
      if (one.name === 'p' || one.name === 'h') {
        const { runs, over } = this.paragraph(one, null);
        this.stream.paragraph(runs, over);
      } else if (one.name === 'list')
        this.list(one, list, (runs, over) => void this.stream.paragraph(runs, over));
      else if (one.name === 'table') this.stream.table(this.rows(one), { page: this.page });
      else if (one.name === 'soft-page-break') this.page += 1;
      else if (!PASSED.has(one.name)) this.blocks(one, list);
    }
  }

  private list(
    one: XmlElement,
    above: List | null,
    add: (runs: Run[], over: Partial<Paragraph>) => void,
  ): void {
    const style = attr(one, 'style-name') ?? above?.style ?? null;
    const list: List = above
      ? { ...above, style, level: above.level + 1 }
      : { id: this.listId(one, style), style, level: 0 };
    for (const item of elements(one)) {
      let label: string | null = null;
      if (item.name === 'list-item') {
        const formats = this.styles.list(list.style);
        if (attr(item, 'start-value') !== null) this.counter.restart(list.id);
        label =
          formats && elements(item).some((c) => c.name === 'p' || c.name === 'h')
            ? this.counter.next(list.id, list.level, formats)
            : '';
      }
      for (const inner of elements(item)) {
        if (inner.name === 'list') this.list(inner, list, add);
        else if (inner.name === 'p' || inner.name === 'h') {
          const { runs, over } = this.paragraph(inner, { label: label ?? '', level: list.level });
          add(runs, over);
          if (runs.length > 0) label = '';
        }
      }
    }
  }

  /** Lists that go on in each other are counted together (ODF 1.3, 19.780 and 19.781). */
  private listId(one: XmlElement, style: string | null): string {
    const continued = attr(one, 'continue-list');
    const own = attr(one, 'id') ?? `list ${(this.lists += 1)}`;
    if (continued !== null && this.ofStyle.has(`id ${continued}`)) {
      const id = this.ofStyle.get(`id ${continued}`)!;
      this.ofStyle.set(`id ${own}`, id);
      return id;
    }
    const goesOn = attr(one, 'continue-numbering') === 'true' && style !== null && this.ofStyle.has(style);
    const id = goesOn ? this.ofStyle.get(style)! : own;
    if (style !== null) this.ofStyle.set(style, id);
    this.ofStyle.set(`id ${own}`, id);
    return id;
  }

  private rows(table: XmlElement): Paragraph[][][] {
    const rows = (parent: XmlElement): XmlElement[] =>
      elements(parent).flatMap((c) =>
        c.name === 'table-row'
          ? [c]
          : /^table-(?:header-)?rows?(?:-group)?$|^table-row-group$/u.test(c.name)
            ? rows(c)
            : [],
      );
    return rows(table).map((row) => elements(row, 'table-cell').map((cell) => this.cell(cell)));
  }

  private cell(parent: XmlElement): Paragraph[] {
    const out: Paragraph[] = [];
    const add = (runs: Run[], over: Partial<Paragraph>): void => {
      const made = this.stream.cell(runs, over);
      if (made) out.push(made);
    };
    for (const one of elements(parent)) {
      if (one.name === 'p' || one.name === 'h') {
        const { runs, over } = this.paragraph(one, null);
        add(runs, over);
      } else if (one.name === 'list') this.list(one, null, add);
      else if (one.name === 'table') out.push(...this.rows(one).flat(2));
      else if (!PASSED.has(one.name)) out.push(...this.cell(one));
    }
    return out;
  }

  private paragraph(
    p: XmlElement,
    item: { label: string; level: number } | null,
  ): { runs: Run[]; over: Partial<Paragraph> } {
    const style = attr(p, 'style-name');
    const { outline } = this.styles.paragraph(style);
    const heading =
      p.name === 'h' ? Math.min(6, Number(attr(p, 'outline-level')) || outline || 1) : Math.min(6, outline);
    const runs: Run[] = [];
    const look = { ...PLAIN_LOOK, ...this.styles.look(style) };
    this.runs(p, heading > 0 ? { ...look, color: null } : look, runs);
    return { runs, over: { heading, label: item?.label ?? '', level: item?.level ?? 0, page: this.page } };
  }

  private runs(parent: XmlElement, look: Look, out: Run[]): void {
    for (const node of parent.children) {
      if (!isElement(node)) out.push(textRun(node.text.replace(/[ \t\r\n]+/gu, ' '), look));
      else this.run(node, look, out);
    }
  }

  private run(one: XmlElement, look: Look, out: Run[]): void {
    switch (one.name) {
      case 'span':
        this.runs(one, { ...look, ...this.styles.look(attr(one, 'style-name')) }, out);
        return;
      case 's':
        out.push(textRun(' '.repeat(Math.min(200, Number(attr(one, 'c') ?? '1') || 1)), look));
        return;
      case 'tab':
        out.push(textRun('\t', look));
        return;
      case 'line-break':
        out.push({ kind: 'break' });
        return;
      case 'soft-page-break':
        this.page += 1;
        return;
      case 'frame':
        this.frame(one, look, out);
        return;
      default:
        if (!PASSED.has(one.name)) this.runs(one, look, out);
    }
  }

  private frame(frame: XmlElement, look: Look, out: Run[]): void {
    const object = child(frame, 'object');
    const formula = object && this.formula(attr(object, 'href') ?? '');
    if (formula) {
      out.push(formula);
      return;
    }
    const box = child(frame, 'text-box');
    if (box) {
      for (const p of descendants(box, 'p')) {
        if (out.length > 0) out.push({ kind: 'break' });
        this.runs(p, look, out);
      }
      return;
    }
    const image = child(frame, 'image');
    const address = image ? (attr(image, 'href') ?? '') : '';
    if (address === '') return;
    const described = child(frame, 'desc') ?? child(frame, 'title');
    const run = /^[a-z][a-z0-9+.-]*:/iu.test(address)
      ? this.pictures.remote(address)
      : this.pictures.take(this.parts.bytes(address.replace(/^\.\//u, '')), address, {
          alt: described ? textOf(described).trim() : '',
          ...sizeOf(frame),
        });
    if (run) out.push(run);
  }

  /** A formula is a document of its own inside the archive. */
  private formula(address: string): Run | null {
    const name = `${address.replace(/^\.\//u, '').replace(/\/$/u, '')}/content.xml`;
    if (!this.parts.names.has(name)) return null;
    const root = this.parts.xml(name);
    if (root?.name !== 'math') return null;
    const [node] = buildContent([root], {
      resolve: (at) => at,
      note: (code, severity, ...[params]) =>
        void this.findings.push(findingWith(code, severity, { path: this.path }, (params ?? {}) as never)),
    });
    return node ? { kind: 'math', node } : null;
  }
}

const PER_UNIT: Readonly<Record<string, number>> = {
  cm: 96 / 2.54,
  mm: 96 / 25.4,
  in: 96,
  pt: 96 / 72,
  px: 1,
};
function sizeOf(frame: XmlElement): { width?: number; height?: number } {
  const pixels = (name: string): number | null => {
    const found = /^([\d.]+)(cm|mm|in|pt|px)$/u.exec(attr(frame, name) ?? '');
    return found ? Math.round(Number(found[1]) * PER_UNIT[found[2]!]!) : null;
  };
  const [width, height] = [pixels('width'), pixels('height')];
  return width && height ? { width, height } : {};
}
