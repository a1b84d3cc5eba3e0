import { z } from 'zod';
import { opening, stemText, UNNAMED, type Answers } from '@alforja/core';
import type { QuizHead, SatView, SetView } from '$lib/shared/quizzes';
import { ask } from '../ask';
import { AnswerSheet } from '../content/answers.svelte';
import { quizApi } from './paths';

const Answered = z.record(z.string(), z.array(z.union([z.string(), z.number(), z.boolean()])));
/** What is kept of a sitting while the page is left. */
const Kept = z.object({
  seed: z.string(),
  startedAt: z.number(),
  at: z.number(),
  over: z.boolean(),
  attempts: z.array(z.tuple([z.string(), z.array(Answered)])),
  drafts: z.array(z.tuple([z.string(), Answered])),
});
type Kept = z.infer<typeof Kept>;

const LONGEST = 120;

/** One candidate's way through a quiz; what is answered stays when the page is left. */
export class Sitting {
  readonly #address: string;
  readonly #key: string;
  set = $state.raw<SetView | null>(null);
  sat = $state.raw<SatView | null>(null);
  kept = $state.raw<Kept | null>(null);
  trouble = $state('');
  busy = $state(false);
  /** The answers to the question that is shown. */
  sheet = $state.raw(new AnswerSheet());

  constructor(readonly quiz: QuizHead) {
    this.#address = quizApi(quiz.packageId, quiz.id);
    this.#key = `sitting ${quiz.packageId} ${quiz.id}`;
  }

  /** Goes on where it was left. */
  async resume(): Promise<void> {
    const parsed = Kept.safeParse(readJson(localStorage.getItem(this.#key)));
    if (!parsed.success) return;
    await this.#open(parsed.data);
  }

  begin(seed: string): Promise<void> {
    return this.#open({ seed, startedAt: Date.now(), at: 0, over: false, attempts: [], drafts: [] });
  }

  /** Away with all that was answered. */
  again(): void {
    localStorage.removeItem(this.#key);
    this.kept = null;
    this.set = null;
    this.sat = null;
    this.trouble = '';
  }

  async #open(kept: Kept): Promise<void> {
    await this.#work(async () => {
      this.set = await ask<SetView>(this.#address, { what: 'set', seed: kept.seed });
      this.kept = kept;
      this.#keep(kept);
      await this.#score();
      this.#show();
    });
  }

  async #work(work: () => Promise<void>): Promise<void> {
    this.busy = true;
    this.trouble = '';
    try {
      await work();
    } catch (problem) {
      this.trouble = (problem as Error).message;
    }
    this.busy = false;
  }

  #keep(kept: Kept): void {
    this.kept = kept;
    localStorage.setItem(this.#key, JSON.stringify(kept));
  }

  async #score(): Promise<void> {
    const { seed, attempts, over } = this.kept!;
    this.sat = await ask<SatView>(this.#address, { what: 'sit', seed, attempts, over });
  }

  /** The question that is shown, with the answers it had. */
  #show(): void {
    const sheet = new AnswerSheet();
    const one = this.set?.items[this.kept?.at ?? 0];
    if (one && this.kept) {
      const draft = this.kept.drafts.find(([id]) => id === one.item.id)?.[1];
      const last = this.attemptsOf(one.item.id).at(-1);
      sheet.restore(draft ?? last ?? {});
      sheet.live = !this.kept.over && !(this.sat?.items[this.kept.at]?.done ?? false);
    }
    this.sheet = sheet;
  }

  readonly current = $derived(this.set?.items[this.kept?.at ?? 0] ?? null);
  readonly currentSat = $derived(this.sat?.items[this.kept?.at ?? 0] ?? null);
  /** Places of the questions that this candidate comes to, conditions of the test applied. */
  readonly shown = $derived((this.sat?.items ?? []).flatMap((i, at) => (i.presented ? [at] : [])));
  /** Whether the score is seen to move: something is told before the end. */
  readonly told = $derived(this.set?.items.some((i) => i.told) ?? false);

  attemptsOf(id: string): readonly Answers[] {
    return this.kept?.attempts.find(([item]) => item === id)?.[1] ?? [];
  }
  isAnswered(at: number): boolean {
    const id = this.set?.items[at]?.item.id ?? '';
    const draft = this.kept?.drafts.find(([item]) => item === id)?.[1] ?? {};
    return this.attemptsOf(id).length > 0 || Object.values(draft).some((v) => v.length > 0);
  }
  nameOf(at: number): string {
    const item = this.set?.items[at]?.item;
    return item ? opening(stemText(item), LONGEST) || item.title || UNNAMED.item : '';
  }

  /** What has been typed so far is kept with the question. */
  noteDraft(): void {
    const { kept, current } = this;
    if (!kept || !current || !this.sheet.live) return;
    const answers = this.sheet.answers as Kept['drafts'][number][1];
    const rest = kept.drafts.filter(([id]) => id !== current.item.id);
    this.#keep({ ...kept, drafts: [...rest, [current.item.id, answers]] });
  }

  goTo(at: number): void {
    if (!this.kept) return;
    this.noteDraft();
    this.#keep({ ...this.kept, at });
    this.#show();
  }
  /** The question after this one, or before it, of those that are set. */
  step(by: 1 | -1): number | null {
    const at = this.kept?.at ?? 0;
    const there = by === 1 ? this.shown.find((n) => n > at) : this.shown.findLast((n) => n < at);
    return there ?? null;
  }

  /** Hands in the answer to one question. */
  async handInOne(): Promise<void> {
    const { kept, current } = this;
    if (!kept || !current) return;
    const id = current.item.id;
    const answers = this.sheet.answers as Kept['drafts'][number][1];
    const attempts = [
      ...kept.attempts.filter(([item]) => item !== id),
      [id, [...this.attemptsOf(id), answers]] as Kept['attempts'][number],
    ];
    await this.#work(async () => {
      this.#keep({ ...kept, attempts, drafts: kept.drafts.filter(([item]) => item !== id) });
      await this.#score();
      const live = !(this.currentSat?.done ?? false);
      this.#show();
      this.sheet.live = live;
    });
  }

  /** Hands everything in: what was answered and not handed in yet goes with it. */
  async handIn(): Promise<void> {
    this.noteDraft();
    const { kept } = this;
    if (!kept) return;
    const handed = new Set(kept.attempts.map(([id]) => id));
    const late = kept.drafts
      .filter(([id, answers]) => !handed.has(id) && Object.values(answers).some((v) => v.length > 0))
      .map(([id, answers]): Kept['attempts'][number] => [id, [answers]]);
    await this.#work(async () => {
      this.#keep({ ...kept, over: true, attempts: [...kept.attempts, ...late], drafts: [] });
      await this.#score();
      this.#show();
    });
  }
}

function readJson(text: string | null): unknown {
  try {
    return JSON.parse(text ?? 'null');
  } catch {
    return null;
  }
}
