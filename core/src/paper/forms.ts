import type { Choice, ContentNode, Interaction } from '../model/content.ts';
import { letterOf } from '../model/letterOf.ts';
import { plainNumber } from '../model/number.ts';
import { plain } from '../model/plainText.ts';
import type { Formed } from './blocks.ts';
import type { Block, Inline, Option } from './types.ts';

/** What a form needs from the paper it stands on. */
interface Sheet {
  readonly blocks: (nodes: readonly ContentNode[]) => Block[];
  /** That something cannot be asked on paper as it was. */
  readonly note: (what: string) => void;
}

/** The interactions of a kind; some kinds share one type. */
type Of<K, I = Interaction> = I extends { readonly kind: infer L } ? (K extends L ? I : never) : never;

const line = (text: string): Block => ({
  kind: 'text',
  style: 'note',
  inlines: [{ kind: 'text', text, marks: [] }],
});

const below = (...blocks: readonly Block[]): Formed => ({ inline: [], blocks });

/** Choices under letters, or numbers where the letters stand on the other side. */
const lettered = (
  choices: readonly Choice[],
  sheet: Sheet,
  label: (at: number) => string = letterOf,
): Option[] => choices.map((c, at) => ({ label: label(at), blocks: sheet.blocks(c.content) }));
const numbered = (at: number): string => String(at + 1);

/** Empty lines for an essay, by what it says of its length. */
const DEFAULT_LINES = 8;
const MOST_LINES = 60;
const LETTERS_A_LINE = 70;
function essayLines({ expectedLines, expectedLength }: Of<'extendedText'>): number {
  const wanted = expectedLines ?? (expectedLength === null ? DEFAULT_LINES : expectedLength / LETTERS_A_LINE);
  return Math.min(MOST_LINES, Math.max(2, Math.ceil(wanted)));
}

const SHORT = 12;
const LONG = 50;
const blank = (letters: number | null): Inline => ({
  kind: 'blank',
  letters: Math.min(LONG, Math.max(6, (letters ?? SHORT) + 2)),
});

const picture = ({
  src,
  alt,
  width,
  height,
}: {
  src: string;
  alt: string;
  width: number | null;
  height: number | null;
}): Block => ({
  kind: 'text',
  style: 'normal',
  inlines: [{ kind: 'picture', src, alt, width, height }],
});

/** Millimetres for a drawing without a picture to draw on. */
const FRAME = 80;

/** How each kind is asked on paper, in the words of the paper. */
const FORMS: { readonly [K in Interaction['kind']]: (i: Of<K>, sheet: Sheet) => Formed } = {
  choice: (i, sheet) =>
    below(...sheet.blocks(i.prompt), {
      kind: 'options',
      mark: i.maxChoices === 1 ? 'circle' : 'box',
      options: lettered(i.choices, sheet),
    }),
  order: (i, sheet) =>
    below(...sheet.blocks(i.prompt), line('Number them in the right order.'), {
      kind: 'options',
      mark: 'line',
      options: lettered(i.choices, sheet),
    }),
  associate: (i, sheet) =>
    below(
      ...sheet.blocks(i.prompt),
      line('Write down the letters that belong together, pair by pair.'),
      { kind: 'options', mark: 'none', options: lettered(i.choices, sheet) },
      { kind: 'lines', count: 2 },
    ),
  match: (i, sheet) =>
    below(...sheet.blocks(i.prompt), line('Write the letter on the line.'), {
      kind: 'columns',
      left: lettered(i.left, sheet, numbered),
      right: lettered(i.right, sheet),
    }),
  gapMatch: (i, sheet) =>
    below(
      ...sheet.blocks(i.prompt),
      line('Write the letter into the gap.'),
      { kind: 'options', mark: 'none', options: lettered(i.choices, sheet) },
      ...sheet.blocks(i.content),
    ),
  inlineChoice: (i) => ({
    inline: [
      {
        kind: 'text',
        text: `[ ${i.choices.map((c, at) => `${letterOf(at)} ${plain(c.content)}`).join('  /  ')} ]`,
        marks: [],
      },
    ],
    blocks: [],
  }),
  textEntry: (i) => ({ inline: [blank(i.expectedLength)], blocks: [] }),
  extendedText: (i, sheet) => below(...sheet.blocks(i.prompt), { kind: 'lines', count: essayLines(i) }),
  hottext: (i, sheet) =>
    below(
      ...sheet.blocks(i.prompt),
      line(
        i.maxChoices === 1
          ? 'Circle one of what is underlined.'
          : 'Circle what is right of what is underlined.',
      ),
      ...sheet.blocks(i.content),
    ),
  hotspot: (i, sheet) =>
    below(
      ...sheet.blocks(i.prompt),
      line(i.maxChoices === 1 ? 'Mark one place in the picture.' : 'Mark the places in the picture.'),
      picture(i.picture),
    ),
  graphicOrder: (i, sheet) =>
    below(...sheet.blocks(i.prompt), line('Number the places in the picture in order.'), picture(i.picture)),
  graphicAssociate: (i, sheet) =>
    below(...sheet.blocks(i.prompt), line('Join the places that belong together.'), picture(i.picture)),
  graphicGapMatch: (i, sheet) =>
    below(
      ...sheet.blocks(i.prompt),
      line('Write each letter at its place in the picture.'),
      { kind: 'options', mark: 'none', options: lettered(i.choices, sheet) },
      picture(i.picture),
    ),
  selectPoint: (i, sheet) =>
    below(...sheet.blocks(i.prompt), line('Mark the point with a cross.'), picture(i.picture)),
  positionObject: (i, sheet) =>
    below(...sheet.blocks(i.prompt), line('Mark where it belongs.'), picture(i.picture), picture(i.stage)),
  slider: (i, sheet) => {
    const steps = i.step === null ? '' : ` in steps of ${plainNumber(i.step)}`;
    const range = `A number from ${plainNumber(i.lowerBound)} to ${plainNumber(i.upperBound)}${steps}: `;
    return below(...sheet.blocks(i.prompt), {
      kind: 'text',
      style: 'note',
      inlines: [{ kind: 'text', text: range, marks: [] }, blank(null)],
    });
  },
  upload: (i, sheet) =>
    below(...sheet.blocks(i.prompt), line('Hand in on a sheet of its own, with your name.')),
  drawing: (i, sheet) =>
    below(...sheet.blocks(i.prompt), i.picture.src ? picture(i.picture) : { kind: 'frame', height: FRAME }),
  media: (i, sheet) => {
    sheet.note('a recording cannot be played on paper');
    return below(...sheet.blocks(i.prompt), line('[A recording is played here.]'));
  },
  // What it would have shown is no part of the paper.
  endAttempt: (i, sheet) => {
    sheet.note(`the button “${i.title}” is not there on paper`);
    return below();
  },
  custom: (i, sheet) => {
    sheet.note(`<${i.name}> cannot be set on paper; only its text is there`);
    return below(...sheet.blocks(i.fallback));
  },
};

/** An interaction as it is asked on paper. */
export const formOf = (interaction: Interaction, sheet: Sheet): Formed =>
  (FORMS[interaction.kind] as (i: Interaction, sheet: Sheet) => Formed)(interaction, sheet);
