import type { Operator } from '../../model/scoring.ts';
import type { OperatorTable } from './operator.ts';

/**
 * What only outcome processing of a test can ask (QTI 2.1 Information Model, "testVariables" to
 * "outcomeMinimum").
 */
const count =
  (what: Operator): NonNullable<OperatorTable[Operator]> =>
  (_, attrs, run) =>
    run.test ? run.test.count(what, attrs) : null;

export const TESTS: OperatorTable = {
  testVariables: (_, attrs, run) => (run.test ? run.test.testVariables(attrs) : null),
  numberCorrect: count('numberCorrect'),
  numberIncorrect: count('numberIncorrect'),
  numberPresented: count('numberPresented'),
  numberResponded: count('numberResponded'),
  numberSelected: count('numberSelected'),
  outcomeMaximum: count('outcomeMaximum'),
  outcomeMinimum: count('outcomeMinimum'),
};
