import equal from 'fast-deep-equal';
import type { Quiz, Section } from '../model/holding.ts';
import { outcome } from '../model/make.ts';
import {
  flatSections,
  WHOLE_TEST_USE,
  type TestItemRef,
  type TestPart,
  type TestSection,
  type TestStructure,
} from '../model/testStructure.ts';

type Child = TestSection | TestItemRef;

/** References of a section: what is set to everybody, then what is drawn from. */
const refsOf = (section: Section): { item: string; weight: number }[] => {
  const pool = section.draw?.pool ?? [];
  const inPool = new Set(pool);
  const stated = new Map(section.items.map((r) => [r.item, r.weight]));
  return [
    ...section.items.filter((r) => !inPool.has(r.item)),
    ...pool.map((item, at) => ({
      item,
      weight: section.draw?.weights?.[at] ?? stated.get(item) ?? 1,
    })),
  ];
};

/**
 * The structure of a test (QTI 2.1, "assessmentTest") as the quiz is now: its items, draws, order and settings;
 * conditions, time limits of parts and outcome processing stay where what they are about stays. Null where the
 * structure cannot be told from the quiz it was read into; the quiz is then written from its sections.
 */
export function syncTest(before: Quiz, after: Quiz): TestStructure | null {
  const { test } = before;
  if (!test || before === after) return after.test;
  // It was taken out on purpose.
  if (after.test === null) return null;
  const sections = flatSections(test);
  if (sections.length !== before.sections.length) return null;
  const structure = before.sections === after.sections ? test : withSections(test, sections, before, after);
  return structure && withSettings(structure, before, after);
}

function withSections(
  test: TestStructure,
  sections: readonly TestSection[],
  before: Quiz,
  after: Quiz,
): TestStructure | null {
  const known = new Map(before.sections.map((s, at) => [s.id, { section: s, node: sections[at]! }]));
  const refs = new Map<string, TestItemRef>();
  for (const node of sections)
    for (const child of node.children)
      if (child.kind === 'item' && child.item !== null && !refs.has(child.item)) refs.set(child.item, child);
  const rewritten = new Map<TestSection, TestSection>();
  const made: TestSection[] = [];
  for (const section of after.sections) {
    const had = known.get(section.id);
    if (had)
      rewritten.set(
        had.node,
        had.section === section ? had.node : rewrite(had.node, had.section, section, refs),
      );
    else made.push(rewrite(NEW_SECTION(section), null, section, refs));
  }
  const kept = after.sections.filter((s) => known.has(s.id)).map((s) => s.id);
  const inOrder = equal(
    kept,
    before.sections.filter((s) => kept.includes(s.id)).map((s) => s.id),
  );
  const visit = (node: TestSection): TestSection[] => {
    const own = rewritten.get(node);
    if (!own && sections.includes(node)) return [];
    const children = (own ?? node).children.flatMap((c): Child[] => (c.kind === 'section' ? visit(c) : [c]));
    return own || children.length > 0 ? [{ ...(own ?? node), children }] : [];
  };
  if (!inOrder || made.some((m) => after.sections.findIndex((s) => s.id === m.id) < kept.length)) {
    if (test.parts.length > 1) return null;
    const [part] = test.parts;
    if (!part) return null;
    // Another order of sections leaves no nesting that would still be true.
    const all = after.sections.map((s) => {
      const had = known.get(s.id);
      const node = had ? rewritten.get(had.node)! : made.find((m) => m.id === s.id)!;
      return { ...node, title: s.title, children: node.children.filter((c) => c.kind === 'item') };
    });
    return { ...test, parts: [{ ...part, sections: all }] };
  }
  const parts = test.parts.map((p, at): TestPart => ({
    ...p,
    sections: [...p.sections.flatMap(visit), ...(at === test.parts.length - 1 ? made : [])],
  }));
  return { ...test, parts: parts.filter((p) => p.sections.length > 0) };
}

const CONTROL = { preConditions: [], branchRules: [], session: null, timeLimits: null };

const NEW_SECTION = (section: Section): TestSection => ({
  ...CONTROL,
  kind: 'section',
  id: section.id,
  title: section.title,
  visible: true,
  required: false,
  fixed: false,
  keepTogether: true,
  selection: null,
  shuffle: section.shuffle,
  rubrics: [],
  children: [],
});

const newRef = (item: string): TestItemRef => ({
  ...CONTROL,
  kind: 'item',
  id: item,
  item,
  href: '',
  required: false,
  fixed: false,
  categories: [],
  weights: [],
  variableMappings: [],
  templateDefaults: [],
});

function rewrite(
  node: TestSection,
  before: Section | null,
  after: Section,
  refs: ReadonlyMap<string, TestItemRef>,
): TestSection {
  const was = before ? refsOf(before).map((r) => r.item) : [];
  const wanted = refsOf(after);
  const still = new Map(wanted.map((r) => [r.item, r]));
  const stood = new Set(was);
  const own = new Map(node.children.flatMap((c) => (c.kind === 'item' ? [[c.item, c] as const] : [])));
  // What stays in its order keeps its place among what is nested.
  const sameOrder = equal(
    was.filter((id) => still.has(id)),
    wanted.map((r) => r.item).filter((id) => stood.has(id)),
  );
  const ref = ({ item, weight }: { item: string; weight: number }): TestItemRef => {
    const had = own.get(item) ?? refs.get(item) ?? newRef(item);
    const now = had.weights[0]?.value ?? 1;
    if (now === weight) return had;
    return { ...had, weights: weight === 1 ? [] : [{ id: had.weights[0]?.id ?? 'WEIGHT', value: weight }] };
  };
  const children = sameOrder
    ? [
        ...node.children.flatMap((c): Child[] =>
          c.kind === 'section' ? [c] : c.item !== null && still.has(c.item) ? [ref(still.get(c.item)!)] : [],
        ),
        ...wanted.filter((r) => !own.has(r.item)).map(ref),
      ]
    : [...wanted.map(ref), ...node.children.filter((c) => c.kind === 'section')];
  const title = before && before.title === after.title ? node.title : after.title.split(' / ').at(-1)!;
  return {
    ...node,
    title,
    shuffle: after.shuffle,
    selection: after.draw ? { select: after.draw.pick, withReplacement: after.draw.withReplacement } : null,
    rubrics:
      before && before.instructions !== after.instructions
        ? node.rubrics.filter((r) => r.view !== '' && !r.view.split(/\s+/u).includes('candidate'))
        : node.rubrics,
    children,
  };
}

function withSettings(test: TestStructure, before: Quiz, after: Quiz): TestStructure {
  const [a, b] = [before.settings, after.settings];
  let next = test;
  if (a.timeLimitMinutes !== b.timeLimitMinutes)
    next = {
      ...next,
      timeLimits:
        b.timeLimitMinutes === null
          ? null
          : {
              minTime: null,
              allowLateSubmission: false,
              ...next.timeLimits,
              maxTime: b.timeLimitMinutes * 60,
            },
      parts: next.parts.length === 1 ? next.parts.map((p) => ({ ...p, timeLimits: null })) : next.parts,
    };
  if (a.attempts !== b.attempts) {
    const maxAttempts = b.attempts === 'unlimited' ? 0 : b.attempts;
    next = {
      ...next,
      parts: next.parts.map((p) => ({
        ...p,
        session: maxAttempts === null && !p.session ? null : { flags: {}, ...p.session, maxAttempts },
      })),
    };
  }
  if (a.passMark !== b.passMark) next = withPassMark(next, b.passMark);
  if (a.instructions !== b.instructions) next = withInstructions(next, b.instructions);
  return next;
}

function withPassMark(test: TestStructure, passMark: number | null): TestStructure {
  const declared = test.outcomes.some((o) => o.id === 'SCORE')
    ? test.outcomes
    : [...test.outcomes, outcome('SCORE')];
  const outcomes = declared.map((o) => {
    const { masteryValue: _before, ...rest } = o;
    return o.id === 'SCORE' && passMark !== null ? { ...rest, masteryValue: passMark } : rest;
  });
  return { ...test, outcomes };
}

function withInstructions(test: TestStructure, instructions: string | null): TestStructure {
  const without = (s: TestSection): TestSection => ({
    ...s,
    rubrics: s.rubrics.filter((r) => r.use !== WHOLE_TEST_USE),
    children: s.children.map((c) => (c.kind === 'section' ? without(c) : c)),
  });
  const parts = test.parts.map((p) => ({ ...p, sections: p.sections.map(without) }));
  const [part, ...others] = parts;
  const [first, ...rest] = part?.sections ?? [];
  if (instructions === null || !part || !first) return { ...test, parts };
  const rubric = {
    view: 'candidate',
    use: WHOLE_TEST_USE,
    content: instructions.split('\n').map((line) => ({
      kind: 'element' as const,
      name: 'p',
      attrs: {},
      children: [{ kind: 'text' as const, text: line }],
    })),
  };
  return {
    ...test,
    parts: [{ ...part, sections: [{ ...first, rubrics: [rubric, ...first.rubrics] }, ...rest] }, ...others],
  };
}
