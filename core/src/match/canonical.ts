import type { ContentNode } from '../model/content.ts';
import { walk } from '../model/visit.ts';
import { own } from '../model/own.ts';
import { breaksText } from '../model/blocks.ts';
import { composed } from '../model/composed.ts';
import { texSpans } from '../model/texSpans.ts';

/** Inline mark-up that changes what is read; anything else that shows the same counts as the same. */
const MARKS: Readonly<Record<string, string>> = {
  b: 'b',
  strong: 'b',
  i: 'i',
  em: 'i',
  u: 'u',
  ins: 'u',
  s: 's',
  strike: 's',
  del: 's',
  sub: 'sub',
  sup: 'sup',
  tt: 'code',
  code: 'code',
};

/** The mark that a style amounts to. */
function styleMark(style: string | undefined): string | undefined {
  if (!style) return undefined;
  if (/text-decoration:[^;]*underline/u.test(style)) return 'u';
  if (/text-decoration:[^;]*line-through/u.test(style)) return 's';
  if (/font-weight:\s*(?:bold|[6-9]00)/u.test(style)) return 'b';
  return /font-style:\s*italic/u.test(style) ? 'i' : undefined;
}

/** A text with something else in the place of each of its formulas. */
function withoutTex(text: string, instead: string): string {
  let out = '';
  let at = 0;
  for (const [from, to] of texSpans(text)) {
    out += text.slice(at, from) + instead;
    at = to;
  }
  return at === 0 ? text : out + text.slice(at);
}

/** What stands for a blank until the text around it is settled. */
const BLANK = '\uE000';

/**
 * Content in a form in which two that show the same are identical. Mathematics, images and feedback stand
 * apart; with `places`, a sign says where formulas and pictures stand among the words.
 */
export function canonicalText(nodes: readonly ContentNode[], places = false): string {
  return plainly(nodes) ?? canonicalRuns(nodes, places);
}

/** Words with single blanks between them, and nothing that could be a formula: the same in any form. */
const PLAIN = /^[!-#%-[\]-~]+(?: [!-#%-[\]-~]+)*$/u;

/** The text of content that is nothing but such words; null for all other content. */
function plainly(nodes: readonly ContentNode[]): string | null {
  const [only] = nodes;
  return nodes.length === 1 && only!.kind === 'text' && PLAIN.test(only!.text) ? only!.text : null;
}

function canonicalRuns(nodes: readonly ContentNode[], places: boolean): string {
  const runs = new Runs();
  const block = (list: readonly ContentNode[]): void => {
    runs.add('\n');
    add(list);
    runs.add('\n');
  };
  const add = (list: readonly ContentNode[]): void => {
    for (const node of list) {
      switch (node.kind) {
        case 'text':
          runs.add(withoutTex(node.text, places ? ' ‹formula› ' : ' '));
          break;
        case 'element': {
          if (places && node.name === 'img') runs.add(' ‹picture› ');
          if (breaksText(node.name)) runs.add('\n');
          runs.within(own(MARKS, node.name) ?? styleMark(node.attrs['style']), () => add(node.children));
          if (breaksText(node.name)) runs.add('\n');
          break;
        }
        case 'textEntry':
        case 'inlineChoice':
        case 'gap':
          runs.add(BLANK);
          break;
        case 'hottextChoice':
          add(node.content);
          break;
        case 'gapMatch':
        case 'hottext':
          block(node.prompt);
          block(node.content);
          break;
        case 'template':
          runs.add(`‹if ${node.template} ${node.identifier} ${node.show}›`);
          add(node.children);
          break;
        case 'printedVariable':
          runs.add(`‹${[node.id, node.attrs['format']].filter(Boolean).join(' ')}›`);
          break;
        case 'opaque':
          runs.add(`‹${node.name}›`);
          break;
        case 'math':
          if (places) runs.add(' ‹formula› ');
          break;
        case 'custom':
        case 'feedback':
        case 'rubricBlock':
        case 'infoControl':
        case 'endAttempt':
          break;
        default:
          block(node.prompt);
      }
    }
  };
  add(nodes);
  return composed(runs.text())
    .replace(/\u00A0/gu, ' ')
    .replace(/[ \t]+/gu, ' ')
    .replace(/(?<!\s)\s*\n\s*/gu, '\n')
    .replace(/(?<!\s)\s*\uE000\s*/gu, ' ___ ')
    .trim();
}

/**
 * Text with the marks that hold where it stands. Marks inside one another in any order, cut into pieces, or
 * reaching over blanks at their ends come out the same.
 */
class Runs {
  private readonly parts: string[] = [];
  private marks: readonly string[] = [];
  private open = '';
  private blanks = '';

  add(text: string): void {
    const wanted = this.marks.join(' ');
    if (wanted === '' && this.open === '') {
      this.parts.push(this.blanks, text);
      this.blanks = '';
      return;
    }
    const core = text.trim();
    const from = core === '' ? text.length : text.indexOf(core);
    this.blanks += text.slice(0, from);
    if (core === '') return;
    if (wanted !== this.open) {
      if (this.open) this.parts.push(`‹/${this.open}›`);
      this.parts.push(this.blanks);
      if (wanted) this.parts.push(`‹${wanted}›`);
      this.open = wanted;
    } else this.parts.push(this.blanks);
    this.parts.push(core);
    this.blanks = text.slice(from + core.length);
  }

  within(mark: string | undefined, inside: () => void): void {
    const before = this.marks;
    if (mark !== undefined && !before.includes(mark)) this.marks = [...before, mark].sort();
    inside();
    this.marks = before;
  }

  text(): string {
    if (this.open) this.parts.push(`‹/${this.open}›`);
    this.open = '';
    return this.parts.join('') + this.blanks;
  }
}

/** Mathematics of an item: MathML by its structure, LaTeX by its source. */
export function canonicalMath(nodes: readonly ContentNode[]): string[] {
  const found: string[] = [];
  if (plainly(nodes) !== null) return found;
  walk(nodes, (node) => {
    if (node.kind === 'math') found.push(composed(mathText(node.children)));
    else if (node.kind === 'text')
      for (const [from, to] of texSpans(node.text))
        found.push(composed(node.text.slice(from, to).replace(/\s+/gu, '')));
  });
  return found;
}

function mathText(nodes: readonly ContentNode[]): string {
  return nodes
    .map((node) => {
      if (node.kind === 'text') return node.text.trim();
      if (node.kind !== 'element') return '';
      if (node.name === 'annotation') return '';
      const inner = mathText(node.children);
      return node.name === 'mrow' || node.name === 'semantics' || node.name === 'mstyle'
        ? inner
        : `${node.name}(${inner})`;
    })
    .join('');
}
