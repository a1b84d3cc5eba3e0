/** The colours and type of the page, for pictures that are drawn outside of its style sheets. */
export interface Ink {
  readonly colour: (
    name: 'saddle' | 'agave' | 'ochre' | 'brick' | 'plum' | 'ink' | 'quiet' | 'hair',
  ) => string;
  readonly text: { readonly color: string; readonly fontFamily: string; readonly fontSize: number };
}

export function inkOf(element: Element): Ink {
  const style = getComputedStyle(element);
  const colour = (name: string): string => style.getPropertyValue(`--${name}`).trim();
  return { colour, text: { color: colour('ink'), fontFamily: style.fontFamily, fontSize: 12 } };
}

/** Colour is never alone: what is not the first of several has a pattern of its own. */
export const DECALS = [null, 'rect', 'triangle', 'circle', 'diamond'] as const;

export const decal = (at: number): object => {
  const symbol = DECALS[at % DECALS.length];
  return symbol ? { decal: { symbol, color: 'rgba(255,255,255,0.55)', symbolSize: 0.6 } } : {};
};

/** An axis of names: a hairline, no ticks. */
export const namesAxis = (ink: Ink, names: readonly string[], label: object = {}): object => ({
  type: 'category',
  data: names,
  axisTick: { show: false },
  axisLine: { lineStyle: { color: ink.colour('hair') } },
  axisLabel: { ...ink.text, ...label },
});

/** A legend above the picture, at its left. */
export const legendAbove = (ink: Ink): object => ({
  top: 0,
  left: 0,
  textStyle: ink.text,
  itemWidth: 14,
  itemHeight: 9,
});
