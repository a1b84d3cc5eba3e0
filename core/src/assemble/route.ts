import type { Expr } from '../model/scoring.ts';
import type { TestItemRef, TestPart, TestSection } from '../model/testStructure.ts';
import type { Delivered } from './deliver.ts';

/**
 * The way one candidate takes through a test: pre-conditions on entering a part, a section or an item, branch
 * rules on leaving it (QTI 2.1, "preCondition" and "branchRule"). Those of sections and items count only in
 * linear parts.
 */
export class Route {
  readonly #holds: (condition: Expr) => boolean;
  /** Whether a part or section was entered, for each that was come to. */
  readonly #entered = new Map<TestPart | TestSection, boolean>();
  #path: readonly (TestPart | TestSection)[] = [];
  #skips: ((one: Delivered) => boolean) | null = null;

  /** @param holds runs a condition on what has been sat so far */
  constructor(holds: (condition: Expr) => boolean) {
    this.#holds = holds;
  }

  /** Whether the next item is set; to be asked once for each, in order. */
  enters(one: Delivered): boolean {
    this.#leave(one);
    if (this.#skips?.(one)) return false;
    this.#skips = null;
    for (const [at, stage] of one.within.entries()) {
      const known = this.#entered.get(stage) ?? this.#admits(stage, one);
      this.#entered.set(stage, known);
      if (!known) {
        this.#path = one.within.slice(0, at);
        return false;
      }
    }
    this.#path = one.within;
    return one.node === null || this.#admits(one.node, one);
  }

  /** After the item: where its branch rules lead. */
  answered(one: Delivered): void {
    if (one.node) this.#branch(one.node, one.within);
  }

  /** Runs the branch rules of whatever the next item no longer stands in, innermost first. */
  #leave(next: Delivered): void {
    const left = this.#path.filter((stage) => !next.within.includes(stage)).reverse();
    for (const stage of left) {
      if (!this.#skips) this.#branch(stage, this.#path.slice(0, this.#path.indexOf(stage)));
    }
    this.#path = this.#path.filter((stage) => next.within.includes(stage));
  }

  #admits(stage: TestPart | TestSection | TestItemRef, one: Delivered): boolean {
    return !counts(stage, one.within) || stage.preConditions.every((c) => this.#holds(c));
  }

  #branch(stage: TestPart | TestSection | TestItemRef, within: readonly (TestPart | TestSection)[]): void {
    if (!counts(stage, within)) return;
    const rule = stage.branchRules.find((r) => this.#holds(r.when));
    if (rule) this.#skips = skipping(rule.target, within);
  }
}

const isPart = (stage: object): stage is TestPart => 'navigationMode' in stage;

/** Conditions of parts always count, those inside a part only where candidates cannot go back. */
const counts = (stage: object, within: readonly (TestPart | TestSection)[]): boolean =>
  isPart(stage) || within.find(isPart)?.navigationMode === 'linear';

/**
 * What a branch leaves out: the rest of the section, the part or the test, or all that stands before its
 * target.
 */
function skipping(target: string, within: readonly (TestPart | TestSection)[]): (one: Delivered) => boolean {
  if (target === 'EXIT_TEST') return () => true;
  const stage =
    target === 'EXIT_TESTPART' ? within.find(isPart) : target === 'EXIT_SECTION' ? within.at(-1) : undefined;
  if (stage) return (one) => one.within.includes(stage);
  return (one) => one.ref !== target && !one.within.some((w) => w.id === target);
}
