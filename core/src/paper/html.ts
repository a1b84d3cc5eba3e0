import { encodeBase64 } from '../model/base64.ts';
import { plainNumber } from '../model/number.ts';
import { escapeText } from '../xml/write.ts';
import { pictureAt, type ReadFile } from './pictures.ts';
import { PAPER_CSS } from './paperCss.ts';
import type {
  Block,
  Cell,
  Inline,
  KeyEntry,
  Mark,
  Option,
  Paper,
  PaperKey,
  PaperSection,
  PaperStyle,
  Question,
} from './types.ts';
import { paperTitle, pointsWord, WORDS } from './words.ts';

/** A page that prints as it stands: everything in it, nothing fetched, nothing that runs. */
function page(title: string, language: string | null, style: PaperStyle, body: string): string {
  const classes = [style.large ? 'large' : '', style.plain ? 'plain' : ''].filter((c) => c !== '').join(' ');
  return `<!doctype html>
<html lang="${attribute(language ?? 'en')}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; img-src data:">
<title>${escapeText(title)}</title>
<style>@page { size: ${style.size}; margin: 18mm 20mm; }
${PAPER_CSS}</style>
</head>
<body class="${classes}">
<main>
${body}
</main>
</body>
</html>
`;
}

const attribute = (text: string): string => escapeText(text).replace(/"/gu, '&quot;');

/** A paper as a page for the browser's print. */
export function paperHtml(paper: Paper, style: PaperStyle, read: ReadFile): string {
  const html = new Html(read);
  const lines = [
    html.head(paper, pointsLine(paper)),
    html.blocks(paper.instructions),
    ...paper.sections.map((s) => html.section(s, paper.sections.length > 1)),
    ...(style.sheet ? [html.sheet(paper)] : []),
  ];
  return page(paperTitle(paper.title, paper.version), paper.language, style, lines.join('\n'));
}

/** The key of a paper as a page. */
export function keyHtml(key: PaperKey, style: PaperStyle, read: ReadFile): string {
  const html = new Html(read);
  const title = `${WORDS.key}: ${paperTitle(key.title, key.version)}`;
  return page(title, key.language, style, html.key(key));
}

const pointsLine = ({ points, minutes }: Paper): string =>
  [pointsWord(points), ...(minutes === null ? [] : [`${plainNumber(minutes)} ${WORDS.minutes}`])].join(', ');

const TAGS: Readonly<Record<Mark, string>> = {
  bold: 'b',
  italic: 'i',
  underline: 'u',
  strike: 's',
  sub: 'sub',
  super: 'sup',
  code: 'code',
};

const STYLES = {
  normal: 'p',
  heading: 'h4',
  quote: 'blockquote',
  code: 'pre',
  note: 'p class="note"',
} as const;
const closing = (open: string): string => open.split(' ')[0]!;
/** An element around what stands in it; its attributes come with its name. */
const wrap = (open: string, ...inner: readonly string[]): string =>
  `<${open}>${inner.join('')}</${closing(open)}>`;
const MARK = { circle: '○', box: '□', line: '____', none: '' } as const;

class Html {
  constructor(private readonly read: ReadFile) {}

  head(paper: Pick<Paper, 'title' | 'version' | 'head'>, says: string, signed = true): string {
    const date = paper.head.date ? ` ${escapeText(paper.head.date)}` : '';
    const who = signed
      ? `\n<p class="who"><span>${WORDS.name}</span><span>${WORDS.date}${date}</span></p>`
      : '';
    const course = paper.head.course ? `<p class="course">${escapeText(paper.head.course)}</p>` : '';
    const version = paper.version
      ? `<p class="version">${WORDS.version} <b>${escapeText(paper.version)}</b></p>`
      : '';
    const title = wrap('h1', escapeText(paper.title));
    return wrap('header', course, title, version, wrap('p class="says"', escapeText(says)), who);
  }

  section({ title, instructions, questions }: PaperSection, several: boolean): string {
    const head = several && title ? `<h2>${escapeText(title)}</h2>` : '';
    const asked = questions.map((q) => this.question(q));
    // A heading never stands alone at the foot of a page.
    const together = wrap('div class="keep"', head, this.blocks(instructions), asked[0] ?? '');
    return wrap('section', together, asked.slice(1).join('\n'));
  }

  private question({ number, points, blocks }: Question): string {
    return wrap(
      'article class="question"',
      wrap('p class="number"', String(number)),
      wrap('div', this.blocks(blocks)),
      wrap('p class="points"', points > 0 ? escapeText(pointsWord(points)) : ''),
    );
  }

  sheet(paper: Paper): string {
    const rows = paper.sections
      .flatMap((s) => s.questions)
      .flatMap(({ number, sheet }) => {
        if (!sheet) return [];
        const mark = sheet.several ? MARK.box : MARK.circle;
        const letters = sheet.letters.map((l) => `<span class="pick">${mark} ${l}</span>`).join('');
        return [
          `<tr><th scope="row">${number}</th><td>${letters || '<span class="write"></span>'}</td></tr>`,
        ];
      });
    if (rows.length === 0) return '';
    return `<section class="sheet">${this.head({ ...paper, title: `${WORDS.answerSheet}: ${paper.title}` }, WORDS.one)}
<table class="answers"><tbody>${rows.join('\n')}</tbody></table></section>`;
  }

  key({ title, version, points, head, entries }: PaperKey): string {
    const rows = entries.map((e) => this.entry(e));
    const names = [WORDS.question, WORDS.answer, WORDS.rule, WORDS.points];
    const columns = names.map((name) => wrap('th scope="col"', name));
    return `${this.head({ title: `${WORDS.key}: ${title}`, version, head }, pointsWord(points), false)}
<table class="key">${wrap('thead', wrap('tr', ...columns))}
<tbody>${rows.join('\n')}</tbody></table>`;
  }

  private entry({ number, title, answers, rule, points, guide }: KeyEntry): string {
    const right = answers.length === 0 ? WORDS.byHand : answers.map((a) => escapeText(a)).join('<br>');
    const more =
      guide.length === 0 ? '' : `<tr class="guide"><td></td><td colspan="3">${this.blocks(guide)}</td></tr>`;
    const called = wrap('span class="title"', escapeText(title));
    const row = wrap(
      'tr',
      wrap('th scope="row"', `${number} `, called),
      wrap('td', right),
      wrap('td', escapeText(rule)),
      wrap('td class="number"', plainNumber(points)),
    );
    return row + more;
  }

  blocks(blocks: readonly Block[]): string {
    return blocks.map((b) => this.block(b)).join('\n');
  }

  private block(block: Block): string {
    switch (block.kind) {
      case 'text': {
        const tag = STYLES[block.style];
        return `<${tag} dir="auto">${this.inlines(block.inlines)}</${closing(tag)}>`;
      }
      case 'list': {
        const tag = block.ordered ? 'ol' : 'ul';
        return `<${tag}>${block.items.map((i) => `<li>${this.blocks(i)}</li>`).join('')}</${tag}>`;
      }
      case 'table':
        return wrap(
          'table class="content"',
          wrap('tbody', ...block.rows.map((r) => wrap('tr', ...r.map((c) => this.cell(c))))),
        );
      case 'options':
        return this.options(block.options, MARK[block.mark]);
      case 'columns':
        return `<div class="columns">${this.options(block.left, MARK.line)}${this.options(block.right, MARK.none)}</div>`;
      case 'lines':
        return `<div class="lines">${'<div></div>'.repeat(block.count)}</div>`;
      case 'frame':
        return `<div class="frame" style="height:${block.height}mm"></div>`;
    }
  }

  private cell({ blocks, header, columns, rows }: Cell): string {
    const tag = header ? 'th' : 'td';
    const spans = `${columns > 1 ? ` colspan="${columns}"` : ''}${rows > 1 ? ` rowspan="${rows}"` : ''}`;
    return `<${tag}${spans}>${this.blocks(blocks)}</${tag}>`;
  }

  private options(options: readonly Option[], mark: string): string {
    const rows = options.map(({ label, blocks }) =>
      wrap(
        'li',
        wrap('span class="mark"', mark),
        wrap('span class="label"', escapeText(label)),
        wrap('div', this.blocks(blocks)),
      ),
    );
    return wrap('ul class="options"', ...rows);
  }

  private inlines(inlines: readonly Inline[]): string {
    return inlines.map((i) => this.inline(i)).join('');
  }

  private inline(inline: Inline): string {
    switch (inline.kind) {
      case 'text':
        return inline.marks.reduce(
          (inner, m) => `<${TAGS[m]}>${inner}</${TAGS[m]}>`,
          escapeText(inline.text),
        );
      case 'math':
        // Made of allowed elements and attributes only, all text escaped.
        return inline.display ? `<span class="display">${inline.markup}</span>` : inline.markup;
      case 'picture':
        return this.picture(inline);
      case 'blank':
        return `<span class="blank" style="width:${inline.letters}ch"></span>`;
      case 'break':
        return '<br>';
    }
  }

  private picture({ src, alt, width, height }: Extract<Inline, { kind: 'picture' }>): string {
    const found = pictureAt(src, this.read);
    if (!found) return `<span class="missing">[${escapeText(alt || src)}]</span>`;
    const size = `${width === null ? '' : ` width="${width}"`}${height === null ? '' : ` height="${height}"`}`;
    const type = found.type === 'jpg' ? 'jpeg' : found.type;
    return `<img src="data:image/${type};base64,${encodeBase64(found.bytes)}" alt="${attribute(alt)}"${size}>`;
  }
}
