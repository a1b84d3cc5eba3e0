import { float, held, integer } from '../value.ts';
import { numberOf, type OperatorTable } from './operator.ts';

/** Chance, from the run's seed (QTI 2.1 Information Model, "randomInteger", "randomFloat", "random"). */
export const CHANCE: OperatorTable = {
  randomInteger: (_, attrs, run) => {
    const low = numberOf(attrs['min'], run) ?? 0;
    const high = numberOf(attrs['max'], run);
    const step = Math.max(1, numberOf(attrs['step'], run) ?? 1);
    if (high === null || high < low) return null;
    return integer(low + step * Math.floor(run.random() * (Math.floor((high - low) / step) + 1)));
  },
  randomFloat: (_, attrs, run) => {
    const low = numberOf(attrs['min'], run) ?? 0;
    const high = numberOf(attrs['max'], run);
    return high === null ? null : float(low + run.random() * (high - low));
  },
  random: ([a], _, run) =>
    a ? held('single', a.baseType, [a.values[Math.floor(run.random() * a.values.length)]!]) : null,
};
