/** The few functions of the statistics library that tests hold figures against. */
declare module 'jstat' {
  const jstat: {
    hypgeom: { pdf: (found: number, of: number, marked: number, pick: number) => number };
    binomial: { pdf: (found: number, tries: number, chance: number) => number };
    normal: { cdf: (x: number, mean: number, deviation: number) => number };
    mean: (values: readonly number[]) => number;
    stdev: (values: readonly number[], sample?: boolean) => number;
  };
  export default jstat;
}
