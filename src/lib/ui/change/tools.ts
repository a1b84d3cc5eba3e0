import type { Command } from 'prosemirror-state';
import type { Typed } from './formulas';
import type { Around } from './views';

/** What every text of an item needs to be changed. */
export interface TextHelp {
  readonly around: (slots: readonly string[]) => Around;
  readonly language: string | undefined;
  readonly onformula: (put: (command: Command) => void, was: Typed | null) => void;
  readonly onpicture: (file: File, put: (command: Command) => void) => void;
}
