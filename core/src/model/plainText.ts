import { breaksText } from './blocks.ts';
import type { ContentNode } from './content.ts';
import type { Item } from './holding.ts';
import type { Option } from './options.ts';

interface PlainOptions {
  /** What stands for a blank the student fills in. */
  readonly blank?: string;
  /** Whether an image counts by its alternative text. */
  readonly alternatives?: boolean;
}

/**
 * Plain text of content with white space collapsed. Feedback, rubric blocks and choices are not part of it.
 */
export function plain(nodes: readonly ContentNode[], options: PlainOptions = {}): string {
  const [only] = nodes;
  if (nodes.length === 1 && only!.kind === 'text') return collapsed(only!.text);
  let out = '';
  let apart = true;
  const say = (text: string): void => {
    if (text === '') return;
    out += text;
    apart = false;
  };
  /** A blank, unless there is one. */
  const gap = (): void => {
    if (!apart) out += ' ';
    apart = true;
  };
  const blank = options.blank ?? ' ___ ';
  const add = (list: readonly ContentNode[]): void => {
    for (const node of list) {
      switch (node.kind) {
        case 'text':
          say(node.text);
          break;
        case 'element': {
          // A formula is read as it is shown, not as it was typed besides.
          if (node.name === 'annotation') break;
          const block = breaksText(node.name);
          if (block) gap();
          if (options.alternatives && node.name === 'img' && node.attrs['alt']) say(` ${node.attrs['alt']} `);
          add(node.children);
          if (block) gap();
          break;
        }
        case 'math':
        case 'template':
          add(node.children);
          break;
        case 'textEntry':
        case 'inlineChoice':
        case 'gap':
          say(blank);
          break;
        case 'hottextChoice':
          add(node.content);
          break;
        case 'custom':
          add(node.fallback);
          break;
        case 'gapMatch':
        case 'hottext':
          gap();
          add(node.prompt);
          gap();
          add(node.content);
          gap();
          break;
        case 'printedVariable':
          say(`[${node.id}]`);
          break;
        case 'feedback':
        case 'rubricBlock':
        case 'opaque':
        case 'infoControl':
        case 'endAttempt':
          break;
        default:
          gap();
          add(node.prompt);
          gap();
      }
    }
  };
  add(nodes);
  return collapsed(out);
}

const [BLANK_CODE, FIRST_SHOWN, LAST_PLAIN] = [32, 33, 126];

/** White space run together, and none at the ends. */
function collapsed(given: string): string {
  const text = given.trim();
  let before = 0;
  for (let at = 0; at < text.length; at++) {
    const c = text.charCodeAt(at);
    // Nearly all text is of signs that are no white space, and single blanks between them.
    if (c > LAST_PLAIN || (c < FIRST_SHOWN && (c !== BLANK_CODE || before === BLANK_CODE)))
      return text.replace(/\s+/gu, ' ');
    before = c;
  }
  return text;
}

/** The plain text of an item's body; that of the last one is remembered, since much is asked of one in a row. */
export function bodyText({ body }: Pick<Item, 'body'>): string {
  if (last.body !== body) last = { body, text: plain(body) };
  return last.text;
}
let last: { readonly body: readonly ContentNode[] | null; readonly text: string } = { body: null, text: '' };

const BLANK = '___';

/** The question as plain text: the body without choices and feedback; a blank inside the text is "___". */
export function stemText(item: Pick<Item, 'body'>): string {
  const text = bodyText(item);
  let from = 0;
  while (text.startsWith(BLANK, from))
    from += text[from + BLANK.length] === ' ' ? BLANK.length + 1 : BLANK.length;
  let end = text.length;
  while (end - BLANK.length >= from && text.endsWith(BLANK, end))
    end -= text[end - BLANK.length - 1] === ' ' ? BLANK.length + 1 : BLANK.length;
  return text.slice(from, Math.max(from, end));
}

/** What an option says: its text, the words of its picture, its label, else its identifier. */
export function optionText(option: Option): string {
  return plain(option.content) || plain(option.content, { alternatives: true }) || option.label || option.id;
}

const NAME_LENGTH = 80;
/** The first words of a text, with a mark where more follow; in a script without spaces, its first characters. */
export function opening(text: string, length = NAME_LENGTH): string {
  const characters = Array.from(text);
  if (characters.length <= length) return text;
  const cut = characters.slice(0, length).join('');
  const words = cut.replace(/(?<!\s)\s+\S*$/u, '');
  return `${words.length > cut.length / 2 ? words : cut}…`;
}

/** What people read where a thing has no name of its own: never its identifier. */
export const UNNAMED = {
  item: 'Question without a name',
  quiz: 'Quiz without a name',
  bank: 'Bank without a name',
  rubric: 'Rubric without a name',
  link: 'Link without a name',
  assignment: 'Assignment without a name',
} as const;

/** What an item goes by that has a title or words. @param stem what `stemText` gives */
export const nameFrom = (title: string, stem: string): string => title || opening(stem);

/** A name for people: title, else the first words of the stem. */
export function nameOf(item: Pick<Item, 'id' | 'title' | 'body'>): string {
  return (
    nameFrom(item.title, item.title ? '' : stemText(item)) ||
    opening(plain(item.body, { alternatives: true })) ||
    UNNAMED.item
  );
}
