import { diffArrays } from 'diff';
import { breaksText } from '../model/blocks.ts';
import type { ContentNode } from '../model/content.ts';
import { element, text } from '../model/make.ts';
import { plain } from '../model/plainText.ts';
import { mapLists } from '../model/visit.ts';
import { refused, type Refused } from './refusal.ts';

/** What a blank is in plain text. */
const BLANK = '___';
/** More words than this are not compared one by one: what is between the first and the last change is new. */
const MOST_WORDS = 4000;

/** A piece of content that carries text of its own: a run of it, or, as a whole, a formula or a place to fill in. */
interface Piece {
  readonly node: ContentNode;
  readonly solid: boolean;
}
/** A word, a blank between words, or a place to fill in; with the piece it stands in, none between two blocks. */
interface Token {
  readonly text: string;
  readonly piece: Piece | null;
}

/**
 * The same content with another text, mark-up kept where the text is unchanged: words that stay stay in the
 * emphasis, the list or the table they stand in, new ones go where the words before them stand. Interactions
 * keep their places, which plain text shows as "___"; those at either end need not be repeated.
 */
export function withText(nodes: readonly ContentNode[], to: string): ContentNode[] | Refused {
  const tokens = tidyTokens(tokensOf(nodes));
  const wanted = words(to);
  const whole = blanksIn(tokens.map((t) => t.text)) === blanksIn(wanted);
  const core = whole ? tokens : tokens.slice(...coreOf(tokens.map((t) => t.text)));
  const said = whole ? wanted : wanted.slice(...coreOf(wanted));
  const blanks = blanksIn(core.map((t) => t.text));
  if (blanks !== blanksIn(said)) return refused('blanks-changed', { blanks });
  const texts = distribute(core, said);
  if (!texts) return [...(to.trim() === '' ? [] : [element('p', [text(to.trim())])]), ...nodes];
  return rebuild(nodes, texts);
}

const blanksIn = (tokens: readonly string[]): number => tokens.filter((t) => t === BLANK).length;

/** Where the text stands between the places to fill in at either end. */
function coreOf(tokens: readonly string[]): [from: number, to: number] {
  const loose = (t: string | undefined): boolean => t === BLANK || t === ' ';
  let from = 0;
  let to = tokens.length;
  while (from < to && loose(tokens[from])) from += 1;
  while (to > from && loose(tokens[to - 1])) to -= 1;
  return [from, to];
}

/** Words and the blanks between them; a place to fill in is a word of its own. */
const words = (said: string): string[] =>
  said
    .replace(/\s+/gu, ' ')
    .trim()
    .split(/( |___)/u)
    .filter((t) => t !== '');

/** The text of content as tokens, in the order in which it is read; the same text as `plain` gives. */
function tokensOf(nodes: readonly ContentNode[]): Token[] {
  const out: Token[] = [];
  const space = (): void => void out.push({ text: ' ', piece: null });
  const add = (piece: Piece, said: string): void => {
    for (const t of said.replace(/\s+/gu, ' ').split(/( )/u)) if (t !== '') out.push({ text: t, piece });
  };
  const visit = (list: readonly ContentNode[]): void => {
    for (const node of list) {
      switch (node.kind) {
        case 'text':
          add({ node, solid: false }, node.text);
          break;
        case 'element': {
          const block = breaksText(node.name);
          if (block) space();
          visit(node.children);
          if (block) space();
          break;
        }
        case 'math':
        case 'printedVariable':
          add({ node, solid: true }, plain([node]));
          break;
        case 'template':
          visit(node.children);
          break;
        case 'textEntry':
        case 'inlineChoice':
        case 'gap':
          space();
          out.push({ text: BLANK, piece: { node, solid: true } });
          space();
          break;
        case 'hottextChoice':
          visit(node.content);
          break;
        case 'custom':
          visit(node.fallback);
          break;
        case 'gapMatch':
        case 'hottext':
          space();
          visit(node.prompt);
          space();
          visit(node.content);
          space();
          break;
        case 'feedback':
        case 'rubricBlock':
        case 'opaque':
        case 'infoControl':
        case 'endAttempt':
          break;
        default:
          space();
          visit(node.prompt);
          space();
      }
    }
  };
  visit(nodes);
  return out;
}

/** Runs of blanks are one, as they are shown: one that stands in a piece is kept before one that does not. */
function tidyTokens(tokens: readonly Token[]): Token[] {
  const out: Token[] = [];
  for (const token of tokens) {
    const last = out.at(-1);
    if (token.text !== ' ' || last?.text !== ' ') out.push(token);
    else if (last.piece === null && token.piece !== null) out[out.length - 1] = token;
  }
  while (out[0]?.text === ' ') out.shift();
  while (out.at(-1)?.text === ' ') out.pop();
  return out;
}

/** What pieces say now, and what is to stand right before or after one that cannot say anything else. */
interface Texts {
  readonly of: Map<Piece, string>;
  readonly ahead: Map<Piece, string>;
  readonly after: Map<Piece, string>;
  /** The first and the last piece, whose blanks at the outer ends stay. */
  readonly ends: readonly [Piece | null, Piece | null];
}

/** New text for every piece; null where there is no piece that could hold any. */
function distribute(core: readonly Token[], wanted: readonly string[]): Texts | null {
  const pieces = core.flatMap((t) => (t.piece ? [t.piece] : []));
  if (pieces.length === 0) return null;
  const of = new Map(pieces.map((p) => [p, '']));
  const ahead = new Map<Piece, string>();
  const after = new Map<Piece, string>();
  const append = (to: Map<Piece, string>, piece: Piece, said: string): void =>
    void to.set(piece, (to.get(piece) ?? '') + said);
  let before: Piece | null = null;
  let apart = false;
  let at = 0;
  const add = (said: string): void => {
    if (before && !before.solid) {
      const now = of.get(before)!;
      if (apart && said !== ' ' && now !== '' && !now.endsWith(' ')) append(of, before, ' ');
      append(of, before, said);
    } else {
      const next = core[at]?.piece ?? core[at + 1]?.piece ?? null;
      if (next && !next.solid) append(of, next, said);
      else if (before) append(after, before, said);
      else append(ahead, next ?? pieces[0]!, said);
    }
    apart = false;
  };
  for (const change of differing(
    core.map((t) => t.text),
    wanted,
  )) {
    if (change.added) {
      change.values.forEach(add);
      continue;
    }
    for (const said of change.values) {
      const { piece } = core[at]!;
      at += 1;
      apart = piece === null;
      if (!piece) continue;
      if (!change.removed) append(of, piece, said);
      // A word that goes leaves its place to what comes instead.
      if (said !== ' ' && (!change.removed || !piece.solid)) before = piece;
    }
  }
  return { of, ahead, after, ends: [pieces[0] ?? null, pieces.at(-1) ?? null] };
}

interface Change {
  readonly values: readonly string[];
  readonly added: boolean;
  readonly removed: boolean;
}

/** What goes and what comes, words in their order. */
function differing(from: readonly string[], to: readonly string[]): Change[] {
  if (from.length + to.length <= MOST_WORDS)
    return diffArrays([...from], [...to]).map((c) => ({
      values: c.value,
      added: c.added,
      removed: c.removed,
    }));
  let head = 0;
  while (head < from.length && head < to.length && from[head] === to[head]) head += 1;
  let tail = 0;
  const most = Math.min(from.length, to.length) - head;
  while (tail < most && from[from.length - 1 - tail] === to[to.length - 1 - tail]) tail += 1;
  const part = (list: readonly string[], a: number, b: number, added: boolean, removed: boolean): Change => ({
    values: list.slice(a, b),
    added,
    removed,
  });
  return [
    part(from, 0, head, false, false),
    part(from, head, from.length - tail, false, true),
    part(to, head, to.length - tail, true, false),
    part(from, from.length - tail, from.length, false, false),
  ].filter((c) => c.values.length > 0);
}

/** Content with the pieces' new texts; what has none left and held nothing else is gone. */
function rebuild(nodes: readonly ContentNode[], { of, ahead, after, ends }: Texts): ContentNode[] {
  const said = new Map([...of].map(([piece, t]) => [piece.node, t]));
  const beside = (
    texts: ReadonlyMap<Piece, string>,
    put: (t: string) => string,
  ): Map<ContentNode, ContentNode[]> => new Map([...texts].map(([piece, t]) => [piece.node, [text(put(t))]]));
  const before = beside(ahead, (t) => (t.endsWith(' ') ? t : `${t} `));
  const behind = beside(after, (t) => (t.startsWith(' ') ? t : ` ${t}`));
  const own = (node: ContentNode): ContentNode[] => {
    const now = said.get(node)!;
    if (node.kind !== 'text') {
      const kept = now === plain([node]) || now === BLANK;
      return kept ? [node] : now === '' ? [] : [text(now)];
    }
    const lead = node === ends[0]?.node ? (/^\s+/u.exec(node.text)?.[0] ?? '') : '';
    const trail = node === ends[1]?.node ? (/\s+$/u.exec(node.text)?.[0] ?? '') : '';
    const full = `${now.startsWith(' ') ? '' : lead}${now}${now.endsWith(' ') ? '' : trail}`;
    return full.trim() === '' && now === '' ? [] : [text(full)];
  };
  const list = (all: readonly ContentNode[]): ContentNode[] =>
    all.flatMap((node): ContentNode[] => {
      if (said.has(node)) return [...(before.get(node) ?? []), ...own(node), ...(behind.get(node) ?? [])];
      const made = mapLists(node, list);
      const emptied =
        node.kind === 'element' &&
        node.children.length > 0 &&
        made.kind === 'element' &&
        made.children.length === 0;
      return emptied ? [] : [made];
    });
  return list(nodes);
}
