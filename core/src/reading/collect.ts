import type { FindingCode } from '../model/codes.ts';
import { finding, type Finding } from '../model/finding.ts';

/**
 * So many findings of one code are listed of one item, quiz, bank or rubric, and of what is in none of them. A file may
 * have others without end, and nobody reads more that are alike.
 */
export const MOST_ALIKE = 1000;

interface Alike {
  readonly first: Finding;
  count: number;
}

/** Takes findings as they come, and says of those that are too many alike how many more there were. */
export class Collected {
  readonly #kept: (found: Finding) => Finding;
  readonly #listed: Finding[] = [];
  readonly #alike = new Map<string | null, Map<FindingCode, Alike>>();

  /** @param kept gives what is kept of a finding: the same, value by value */
  constructor(kept: (found: Finding) => Finding = (found) => found) {
    this.#kept = kept;
  }

  readonly add = (found: Finding): void => {
    const { node } = found.where;
    const ofNode = this.#alike.get(node) ?? new Map<FindingCode, Alike>();
    this.#alike.set(node, ofNode);
    const before = ofNode.get(found.code);
    const alike = before ?? { first: this.#kept(found), count: 0 };
    if (!before) ofNode.set(found.code, alike);
    alike.count += 1;
    if (alike.count <= MOST_ALIKE) this.#listed.push(before ? this.#kept(found) : alike.first);
  };

  get all(): Finding[] {
    const many = [...this.#alike.values()]
      .flatMap((of) => [...of.values()])
      .filter((a) => a.count > MOST_ALIKE);
    return [
      ...this.#listed,
      ...many.map(({ first: { code, severity, where }, count }) =>
        finding(
          'findings-many',
          severity,
          { node: where.node },
          { code, count: count - MOST_ALIKE, listed: MOST_ALIKE },
        ),
      ),
    ];
  }
}
