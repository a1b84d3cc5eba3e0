import { sliceRuns, textOfRuns, trimRuns } from '../document/runs.ts';
import type { Run } from '../document/block.ts';
import { questionAt, standsOut, type Open, type SoFar } from './begins.ts';
import { fieldsOfLine, foldField } from './fields.ts';
import { NOTHING_SAID, type ByHand, type HandRole } from './hand.ts';
import { headingOf } from './headings.ts';
import { behind, inlineLabels, type InlineLabel } from './inline.ts';
import { BOX_SHAPE, isTicked, type Label } from './labels.ts';
import type { Line } from './lines.ts';
import {
  partText,
  PLAIN_CHOICES,
  type Cut,
  type Part,
  type RawField,
  type RawItem,
  type Segmented,
} from './raw.ts';
import { rangeIn } from './ranges.ts';

/** Cuts a document into items as a hypothesis has it, and as somebody has said of single blocks. */
export function segment(lines: readonly Line[], cut: Cut, hand: ByHand = NOTHING_SAID): Segmented {
  return new Segmenter(lines, cut, hand).run();
}

class Segmenter implements SoFar {
  readonly items: RawItem[] = [];
  private pending: Line[] = [];
  private lead: RawField[] = [];
  open: Open | null = null;
  level: number | null = null;
  private readonly headings = new Set<Line>();
  private readonly aside: Line[] = [];
  /** Text that somebody has given to the next question. */
  private given: Part[] = [];
  private count = 0;

  constructor(
    readonly lines: readonly Line[],
    readonly cut: Cut,
    private readonly hand: ByHand,
  ) {}

  run(): Segmented {
    for (const line of this.lines) this.take(line);
    const after = [...this.given.map((p) => p.line), ...this.pending];
    return { items: this.items, headings: this.headings, aside: this.aside, after };
  }

  private take(line: Line): void {
    const question = questionAt(line, this);
    const said = this.hand.get(line.block);
    if (said !== undefined && this.asSaid(line, said, question)) return;
    if (question !== undefined) return this.begin(line, question);
    if (this.ends(line)) return this.close(line);
    if (this.open && !line.table) {
      const choice = this.choiceAt(line);
      if (choice) return this.choose(line, choice);
    }
    if (this.field(line)) return;
    if (this.open && this.plainChoice(line)) return;
    this.goOn(line);
  }

  /** Takes a line for what somebody has said that it is. @returns whether that can be */
  private asSaid(line: Line, said: HandRole, question: Label | null | undefined): boolean {
    if (said === 'question') {
      const goesOn = this.lines[line.at - 1]?.block === line.block;
      if (!goesOn && question === undefined)
        this.begin(line, line.labels.find((l) => l.kind === '1') ?? null, true);
      return !goesOn && question === undefined;
    }
    if (said === 'heading') {
      this.headings.add(line);
      this.close(line);
      return true;
    }
    if (said === 'aside') this.aside.push(line);
    else if (said === 'before') this.given.push({ line, runs: line.runs, joins: false });
    else if (!this.giveTo(this.items.at(-1), line, said)) return false;
    // One that would have begun here is counted all the same, so that those after it stay what they are.
    if (question !== undefined) this.count += 1;
    return true;
  }

  private giveTo(item: RawItem | undefined, line: Line, said: HandRole): boolean {
    if (!item) return false;
    this.open ??= { item, last: item.stem };
    const part: Part = { line, runs: line.runs, joins: said === 'on' };
    const label = line.labels.find((l) => this.cut.choices.includes(l.shape)) ?? line.labels[0] ?? null;
    if (said === 'choice')
      this.push(line, label, label ? behind(line, line.automatic ? 0 : label.length) : line.runs, line.sign);
    else if (said === 'key' || said === 'feedback')
      item.fields.push({ name: said, folded: said, role: said, parts: [part] });
    else (said === 'on' ? this.open.last : item.stem).push(part);
    return true;
  }

  /** Whether a line stands above what comes: a heading, or a passage for the next questions. */
  private ends(line: Line): boolean {
    if (line.heading > 0) return !this.choiceAt(line);
    if (
      !this.open ||
      line.table ||
      (line.labels.length > 0 && !line.labels.every((l) => l.shape.includes(' ')))
    )
      return false;
    const number = this.open.item.label?.ordinal ?? 0;
    if (number > 0 && rangeIn(line.text, number + 1) && (line.apart || !this.cut.wraps)) return true;
    const heading = headingOf(line, false);
    if (!heading) return false;
    const next = this.lines[line.at + 1];
    const opens = next !== undefined && questionAt(next, this) !== undefined;
    return heading.form === 'kind' || heading.form.startsWith('word ')
      ? line.apart || opens
      : opens && line.apart;
  }

  private begin(line: Line, label: Label | null, byHand = false): void {
    this.level ??= label ? line.level : null;
    const cut = label && !line.automatic ? label.length : 0;
    const stem: Part[] = this.given;
    this.given = [];
    if (!byHand) this.count += 1;
    const item: RawItem = {
      label,
      start: line,
      stem,
      choices: [],
      fields: this.lead,
      before: this.pending,
      front: line.front,
      count: this.count,
      byHand,
    };
    this.pending = [];
    this.lead = [];
    this.items.push(item);
    this.open = { item, last: stem };
    const runs = behind(line, cut);
    if (runs.length > 0) this.stemWithChoices(line, runs, item);
  }

  /** "1. Which? a) red b) blue c) green": choices in the line of the question. */
  private stemWithChoices(line: Line, runs: readonly Run[], item: RawItem): void {
    const text = textOfRuns(runs);
    for (const shape of this.cut.choices) {
      if (shape === PLAIN_CHOICES || shape.length < 2) continue;
      const places = inlineLabels(text, shape, 1);
      if (places.length < 2) continue;
      item.stem.push({ line, runs: trimRuns(sliceRuns(runs, 0, places[0]!.at)), joins: false });
      this.inline(line, runs, places);
      return;
    }
    item.stem.push({ line, runs, joins: false });
  }

  private choiceAt(line: Line): Label | null {
    if (!this.open) return null;
    const { choices, fields } = this.open.item;
    if (fields.length > (this.cut.fieldsLead ? 99 : 0)) return null;
    const before = choices.at(-1)?.label;
    return (
      line.labels.find(
        (l) =>
          this.cut.choices.includes(l.shape) &&
          (before ? l.shape === before.shape : choices.length === 0) &&
          (l.ordinal === 0 || l.ordinal === choices.length + 1),
      ) ?? null
    );
  }

  private choose(line: Line, label: Label): void {
    const runs = behind(line, line.automatic ? 0 : label.length);
    const text = textOfRuns(runs);
    const next = this.lines[line.at + 1];
    const alone =
      next?.labels.some((l) => l.shape === label.shape && l.ordinal === label.ordinal + 1) ?? false;
    const further = label.ordinal === 0 || alone ? [] : inlineLabels(text, label.shape, label.ordinal + 1);
    this.push(
      line,
      label,
      further.length > 0 ? trimRuns(sliceRuns(runs, 0, further[0]!.at)) : runs,
      signOf(line, label),
    );
    if (further.length > 0) this.inline(line, runs, further);
  }

  private inline(line: Line, runs: readonly Run[], places: readonly InlineLabel[]): void {
    for (const [n, { label, at, sign }] of places.entries())
      this.push(
        line,
        label,
        trimRuns(sliceRuns(runs, at + sign.length + label.length, places[n + 1]?.at)),
        sign,
      );
  }

  private push(line: Line, label: Label | null, runs: readonly Run[], sign: string): void {
    const parts: Part[] = [{ line, runs, joins: false }];
    this.open!.item.choices.push({ label, parts, sign });
    this.open!.last = parts;
  }

  private field(line: Line): boolean {
    const found = line.table ? [] : fieldsOfLine(line, this.cut.fields);
    if (found.length === 0) return false;
    if (!this.open && !this.cut.fieldsLead) return false;
    const made = found.map(({ name, from, to }): RawField => {
      const runs = trimRuns(sliceRuns(line.runs, from, to));
      return { name, folded: foldField(name), parts: runs.length > 0 ? [{ line, runs, joins: false }] : [] };
    });
    if (this.cut.fieldsLead) {
      if (this.open && this.pending.length === 0) this.open = null;
      this.lead.push(...made);
      return true;
    }
    if (this.pending.length > 0) return false;
    this.open!.item.fields.push(...made);
    this.open!.last = made.at(-1)!.parts;
    return true;
  }

  private plainChoice(line: Line): boolean {
    const { item } = this.open!;
    if (
      !this.cut.choices.includes(PLAIN_CHOICES) ||
      line.table ||
      item.fields.length > 0 ||
      item.stem.length === 0
    )
      return false;
    if (this.pending.length > 0 || (line.apart && item.choices.length > 0)) return false;
    if (line.labels.some((l) => l.ordinal > 0)) return false;
    // A blank line between stem and choices is no end.
    this.push(line, null, line.runs, line.sign);
    return true;
  }

  /** A line that begins nothing: it belongs to what is open, or to nobody yet. */
  private goOn(line: Line): void {
    const { open } = this;
    if (!open || this.pending.length > 0) {
      this.pending.push(line);
      return;
    }
    const { item } = open;
    const part = (joins: boolean): Part => ({ line, runs: line.runs, joins });
    const wrapped =
      this.cut.wraps && !line.apart && !line.table && open.last.length > 0 && !standsOut(line, this);
    if (line.continues || wrapped) {
      open.last.push(part(wrapped));
      return;
    }
    if (item.fields.length > 0 && !this.cut.fieldsLead) {
      const field = item.fields.at(-1)!;
      // A label whose value stands below it, or an explanation of several paragraphs.
      if (
        field.parts.length === 0 ||
        (!line.apart && !this.cut.wraps && partText(field.parts).length > LONG_VALUE)
      ) {
        field.parts.push(part(false));
        return;
      }
      this.pending.push(line);
      return;
    }
    if (item.choices.length > 0) {
      // A picture or a table that is all there is of the choice.
      if (open.last.length === 1 && open.last[0]!.runs.length === 0) open.last.push(part(false));
      else this.pending.push(line);
      return;
    }
    item.stem.push(part(false));
    open.last = item.stem;
  }

  private close(line: Line): void {
    this.open = null;
    this.pending.push(line);
  }
}

const signOf = (line: Line, label: Label): string =>
  line.sign || (label.shape === BOX_SHAPE && isTicked(line.text) ? '✓' : '');

/** A field's value of so many characters is a text, which may have more than one paragraph. */
const LONG_VALUE = 60;
