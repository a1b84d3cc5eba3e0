/** Words with their {parameters} in place. */
export const fillWords = (text: string, params: Readonly<Record<string, string | number>>): string =>
  text.replace(/\{(\w+)\}/gu, (whole, name: string) =>
    Object.hasOwn(params, name) ? String(params[name]) : whole,
  );
