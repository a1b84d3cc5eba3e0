import { applyEdits } from '../edit/apply.ts';
import type { Refused } from '../edit/refusal.ts';
import type { Edit } from '../edit/schema.ts';
import type { Item } from '../model/holding.ts';
import { choicesOf } from '../model/options.ts';
import { plain, stemText } from '../model/plainText.ts';
import { feedbackRoles, type FeedbackRole } from '../scoring/feedbackRoles.ts';
import { itemsAlone } from './cells.ts';

/** What is looked for in texts, and what comes in its place. */
export interface Search {
  readonly find: string;
  readonly replace: string;
  readonly matchCase: boolean;
  readonly wholeWords: boolean;
}

/** A text of an item in which something was found. */
export interface FoundPlace {
  readonly node: string;
  /** Which text: the title, the question, a choice, a feedback, the category. */
  readonly at: 'title' | 'text' | 'choice' | 'feedback' | 'category';
  readonly before: string;
  readonly after: string;
  readonly edit: Edit;
  /** Why it cannot be replaced here; null where it can. */
  readonly why: Refused | null;
}

type Text = Pick<FoundPlace, 'at'> & { readonly text: string; readonly edit: (to: string) => Edit };

/** Every text of an item that can be looked through. */
function textsOf(item: Item): Text[] {
  const node = item.id;
  const on = (role: FeedbackRole): string => (role.on === 'choice' ? role.choice : role.on);
  return [
    { at: 'title', text: item.title, edit: (to) => ({ op: 'title', node, kind: 'item', to }) },
    { at: 'text', text: stemText(item), edit: (to) => ({ op: 'stem', node, to }) },
    ...choicesOf(item)
      .filter((o) => o.content.length > 0)
      .map((o): Text => ({
        at: 'choice',
        text: plain(o.content),
        edit: (to) => ({ op: 'choice-text', node, choice: o.id, to }),
      })),
    ...(item.feedback.length === 0 ? [] : feedbackRoles(item)).flatMap(({ role, content }): Text[] =>
      role === null
        ? []
        : [
            {
              at: 'feedback',
              text: plain(content),
              edit: (to) => ({ op: 'feedback', node, on: on(role), to }),
            },
          ],
    ),
    { at: 'category', text: item.category ?? '', edit: (to) => ({ op: 'category', node, to }) },
  ];
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/gu, '\\$&');

/** What is looked for, as a pattern of plain letters: nothing in it repeats, so it runs in linear time. */
export function patternOf({ find, matchCase, wholeWords }: Omit<Search, 'replace'>): RegExp {
  const words = escaped(find.normalize('NFC')).replace(/\s+/gu, '\\s+');
  const edge = '[\\p{L}\\p{N}_]';
  const body = wholeWords ? `(?<!${edge})${words}(?!${edge})` : words;
  return new RegExp(body, matchCase ? 'gu' : 'giu');
}

/** Every place of an item in which the search finds something, and what would stand there. */
export function foundIn(item: Item, search: Search): FoundPlace[] {
  if (search.find.trim() === '') return [];
  const pattern = patternOf(search);
  return textsOf(item).flatMap(({ at, text, edit }): FoundPlace[] => {
    const before = text.normalize('NFC');
    // A function, so that a dollar sign in what comes is no sign of anything.
    const after = before.replace(pattern, () => search.replace);
    if (after === before) return [];
    const asked = edit(after);
    const [trouble] = applyEdits(itemsAlone([item]), [asked]).refused;
    return [{ node: item.id, at, before, after, edit: asked, why: trouble?.why ?? null }];
  });
}
