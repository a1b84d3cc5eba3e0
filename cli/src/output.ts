import { Refusal, speak, type Finding } from '@alforja/core';

export const EXIT = { done: 0, found: 1, notDone: 2 } as const;
export type Exit = (typeof EXIT)[keyof typeof EXIT];

export function printJson(value: unknown): void {
  process.stdout.write(`${JSON.stringify(value, null, 2)}\n`);
}

/** An error as the contract has it: a JSON document on standard output, or words on standard error. */
export function printError(error: unknown, json: boolean): void {
  if (error instanceof Refusal) {
    const { code, message, hint, where } = speak(error.finding);
    if (json) printJson({ error: { code, message, where, hint } });
    else process.stderr.write(`${message} ${hint}\n${placeText(error.finding)}`);
    return;
  }
  const message = error instanceof Error ? error.message : String(error);
  if (json) printJson({ error: { code: 'internal', message, where: null } });
  else process.stderr.write(`This should not happen: ${message}\n`);
}

const placeText = ({ where }: Finding): string =>
  where.path ? `  in ${where.path}${where.line ? `, line ${where.line}` : ''}\n` : '';

/** A finding as the contract has it. */
export function plainFinding(found: Finding) {
  const { code, severity, message, where, hint } = speak(found);
  return { code, severity, message, where, hint };
}

/** Findings for people, on standard error. */
export function printFindings(findings: readonly Finding[]): void {
  for (const found of findings) {
    const { severity, message, where } = speak(found);
    const place = [where.path, where.line].filter((p) => p !== null).join(':');
    process.stderr.write(`${severity}: ${place ? `${place}: ` : ''}${message}\n`);
  }
}

export const exitFor = (findings: readonly Finding[]): Exit =>
  findings.some((f) => f.severity === 'error') ? EXIT.found : EXIT.done;
