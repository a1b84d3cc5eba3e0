/** Whether a key goes into a text that is being typed, which has an undo of its own. */
export const inText = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || target.matches('input, textarea, select'));
