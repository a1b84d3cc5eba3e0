import { diffArrays } from 'diff';
import { breaksText } from '../model/blocks.ts';
import type { ContentNode } from '../model/content.ts';
import { plain } from '../model/plainText.ts';

/** What a blank is in plain text. */
export const BLANK = '___';

/** More words than this are not compared one by one: what is between the first and the last change is new. */
const MOST_WORDS = 4000;

/** Changed words of no more letters than this are compared letter by letter where mark-up stands inside them. */
const MOST_LETTERS = 400;

/** A piece of content that carries text of its own: a run of it, or, as a whole, a formula or a place to fill in. */
export interface Piece {
  readonly node: ContentNode;
  readonly solid: boolean;
}

/** Text of one piece; of none between two blocks. */
interface Part {
  readonly text: string;
  readonly piece: Piece | null;
  /** Counts blocks: what stands in two of them is read apart. */
  readonly block: number;
}

/** A word, in as many parts as there are pieces in it, a blank between words, or a place to fill in. */
export interface Token {
  readonly text: string;
  readonly parts: readonly Part[];
}

export const blanksIn = (tokens: readonly string[]): number => tokens.filter((t) => t === BLANK).length;

/** Where the text stands between the places to fill in at either end. */
export function coreOf(tokens: readonly string[]): [from: number, to: number] {
  const loose = (t: string | undefined): boolean => t === BLANK || t === ' ';
  let from = 0;
  let to = tokens.length;
  while (from < to && loose(tokens[from])) from += 1;
  while (to > from && loose(tokens[to - 1])) to -= 1;
  return [from, to];
}

/** Words and the blanks between them; a place to fill in is a word of its own. */
export const words = (said: string): string[] =>
  said
    .replace(/\s+/gu, ' ')
    .trim()
    .split(/( |___)/u)
    .filter((t) => t !== '');

/** The text of content as tokens, in the order in which it is read: the same text as `plain` gives. */
export function tokensOf(nodes: readonly ContentNode[]): Token[] {
  const out: Token[] = [];
  const put = (part: Part): void => {
    const last = out.at(-1);
    if (part.text === ' ') {
      // Runs of blanks are one; one that stands in a piece is kept before one that does not.
      if (last?.text !== ' ') out.push({ text: ' ', parts: [part] });
      else if (last.parts[0]!.piece === null) out[out.length - 1] = { text: ' ', parts: [part] };
    } else if (last && last.text !== ' ' && last.text !== BLANK && part.text !== BLANK)
      out[out.length - 1] = { text: last.text + part.text, parts: [...last.parts, part] };
    else out.push({ text: part.text, parts: [part] });
  };
  eachPart(nodes, put);
  while (out[0]?.text === ' ') out.shift();
  while (out.at(-1)?.text === ' ') out.pop();
  return out;
}

function eachPart(nodes: readonly ContentNode[], put: (part: Part) => void): void {
  let block = 0;
  const space = (): void => {
    block += 1;
    put({ text: ' ', piece: null, block });
  };
  const add = (piece: Piece, said: string): void => {
    for (const t of said.replace(/\s+/gu, ' ').split(/( )/u)) if (t !== '') put({ text: t, piece, block });
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
          put({ text: BLANK, piece: { node, solid: true }, block });
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
}

/** What becomes of each part of the text, and what comes new. */
export type Step =
  { readonly do: 'keep' | 'drop'; readonly part: Part } | { readonly do: 'add'; readonly text: string };

/** From one text to the other, between places to fill in one stretch after the other. */
export function stepsBetween(core: readonly Token[], wanted: readonly string[]): Step[] {
  const steps: Step[] = [];
  let from = 0;
  let to = 0;
  for (;;) {
    const [nextFrom, nextTo] = [
      core.findIndex((t, n) => n >= from && t.text === BLANK),
      wanted.indexOf(BLANK, to),
    ];
    const [endFrom, endTo] = [nextFrom < 0 ? core.length : nextFrom, nextTo < 0 ? wanted.length : nextTo];
    steps.push(...stretch(core.slice(from, endFrom), wanted.slice(to, endTo)));
    if (nextFrom < 0) return steps;
    steps.push({ do: 'keep', part: core[nextFrom]!.parts[0]! });
    from = nextFrom + 1;
    to = nextTo + 1;
  }
}

function stretch(from: readonly Token[], to: readonly string[]): Step[] {
  const steps: Step[] = [];
  let at = 0;
  let gone: readonly Token[] = [];
  for (const change of differing(
    from.map((t) => t.text),
    to,
  )) {
    const tokens = change.added ? [] : from.slice(at, (at += change.values.length));
    if (change.added) {
      steps.push(...exchanged(gone, change.values));
      gone = [];
      continue;
    }
    steps.push(...stepsOf('drop', gone));
    gone = change.removed ? tokens : [];
    if (!change.removed) steps.push(...stepsOf('keep', tokens));
  }
  return [...steps, ...stepsOf('drop', gone)];
}

const stepsOf = (what: 'keep' | 'drop', tokens: readonly Token[]): Step[] =>
  tokens.flatMap((t) => t.parts.map((part): Step => ({ do: what, part })));

/** Words that come instead of others. Where mark-up stands inside one of those, letters that stay stay in it. */
function exchanged(gone: readonly Token[], come: readonly string[]): Step[] {
  const parts = gone.flatMap((t) => t.parts);
  const inside = gone.some((t) => t.parts.some((p) => p.piece !== t.parts[0]!.piece));
  const size = gone.reduce((n, t) => n + t.text.length, 0) + come.join('').length;
  const oneBlock = new Set(parts.map((p) => p.block)).size === 1;
  if (!inside || !oneBlock || size > MOST_LETTERS)
    return [...stepsOf('drop', gone), ...come.map((t): Step => ({ do: 'add', text: t }))];
  const letters = parts.flatMap((p) => Array.from(p.text, (text): Part => ({ ...p, text })));
  let at = 0;
  return differing(
    letters.map((l) => l.text),
    Array.from(come.join('')),
  ).flatMap((change): Step[] => {
    if (change.added) return [{ do: 'add', text: change.values.join('') }];
    const these = letters.slice(at, (at += change.values.length));
    return these.map((part) => ({ do: change.removed ? 'drop' : 'keep', part }));
  });
}

interface Change {
  readonly values: readonly string[];
  readonly added: boolean;
  readonly removed: boolean;
}

/** What goes and what comes, in order: what both begin and end with stays, the rest is compared. */
function differing(from: readonly string[], to: readonly string[]): Change[] {
  let head = 0;
  while (head < from.length && head < to.length && from[head] === to[head]) head += 1;
  let tail = 0;
  const most = Math.min(from.length, to.length) - head;
  while (tail < most && from[from.length - 1 - tail] === to[to.length - 1 - tail]) tail += 1;
  const gone = from.slice(head, from.length - tail);
  const come = to.slice(head, to.length - tail);
  const stays = (values: readonly string[]): Change => ({ values, added: false, removed: false });
  return [stays(from.slice(0, head)), ...between(gone, come), stays(from.slice(from.length - tail))].filter(
    (c) => c.values.length > 0,
  );
}

function between(gone: readonly string[], come: readonly string[]): Change[] {
  const there = new Set(gone.filter((t) => t !== ' '));
  const shared = come.some((t) => there.has(t));
  if (!shared || gone.length + come.length > MOST_WORDS)
    return [
      { values: gone, added: false, removed: true },
      { values: come, added: true, removed: false },
    ];
  return diffArrays([...gone], [...come]).map((c) => ({
    values: c.value,
    added: c.added,
    removed: c.removed,
  }));
}
