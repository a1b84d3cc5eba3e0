import type { Answers } from '@alforja/core';

/** The answers a person gives while trying an item. */
export class AnswerSheet {
  values = $state<Record<string, (string | number)[]>>({});
  live = $state(false);

  toggle(response: string, choice: string, single: boolean): void {
    const had = this.values[response] ?? [];
    if (single) this.values[response] = [choice];
    else this.values[response] = had.includes(choice) ? had.filter((v) => v !== choice) : [...had, choice];
  }

  /** Text as typed; where the response is a number, a decimal comma counts as a point. */
  type(response: string, text: string, numeric: boolean): void {
    const trimmed = text.trim();
    if (trimmed === '') delete this.values[response];
    else if (numeric && Number.isFinite(Number(trimmed.replace(',', '.'))))
      this.values[response] = [Number(trimmed.replace(',', '.'))];
    else this.values[response] = [text];
  }

  get answers(): Answers {
    return $state.snapshot(this.values);
  }
}
