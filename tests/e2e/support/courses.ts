import { expect, type Page } from '@playwright/test';
import { carryAcross, until } from '../../../demo/fill.ts';
import { NO_HABITS, type Habit } from '../../../standins/habits.ts';
import { base, demo } from './demo.ts';

/** Switches these habits of Quayside on and all others off. */
export async function onlyHabits(...habits: readonly Habit[]): Promise<void> {
  const wanted = { ...NO_HABITS, ...Object.fromEntries(habits.map((h) => [h, true])) };
  await fetch(`${demo().standins.quayside}/habits`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(wanted),
  });
}

interface Listed {
  readonly id: string;
}

export async function courseId(classId: string, at = base): Promise<string> {
  const all = (await (await fetch(`${at}/api/courses`)).json()) as Listed[];
  return all.find((c) => c.id.endsWith(`:${classId}`))!.id;
}

/** What a course of Quayside holds, asked of the system itself. */
export async function heldBy(classId: string): Promise<{ id: string; title: string; kind: string }[]> {
  const response = await fetch(`${demo().standins.quayside}/contents/v1/classes/${classId}/outline`, {
    headers: { Authorization: 'Bearer demo-coordinator' },
  });
  return ((await response.json()) as { things: { id: string; title: string; kind: string }[] }).things;
}

/** Brings last term's exam, with what it needs, into a course of this term. */
export async function bringExam(to: string, at = base): Promise<string> {
  return carryAcross(at, await courseId('k-tides-s26', at), await courseId(to, at), (t) =>
    t.title.startsWith('Final exam'),
  );
}

export async function command(id: string, body: object, at = base): Promise<void> {
  const response = await fetch(`${at}/api/transfers/${id}/do`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Origin: at },
    body: JSON.stringify(body),
  });
  expect(response.ok, await response.text()).toBe(true);
}

interface State {
  readonly running: boolean;
  readonly sending: {
    readonly endedAt: number | null;
    readonly undone: object | null;
    readonly failure: { readonly reason: string; readonly detail: string } | null;
    readonly steps: readonly { readonly name: string; readonly state: string }[];
  } | null;
  readonly differences: readonly { readonly id: string }[];
}

export const stateOf = async (id: string, at = base): Promise<State> =>
  (await (await fetch(`${at}/api/transfers/${id}`)).json()) as State;

/** Waits until a transfer's run has come to its end. */
export const ended = (id: string, at = base): Promise<void> =>
  until('the end of the run', async () => {
    const { running, sending } = await stateOf(id, at);
    return !running && sending?.endedAt != null;
  });

/** Takes back what a transfer brought, so that the next finds the course as it was. */
export async function takeBack(id: string): Promise<void> {
  await onlyHabits();
  // What is seen on the page may be there a moment before the run has come to its end.
  await until('the run coming to rest', async () => !(await stateOf(id)).running);
  await command(id, { do: 'undo' });
  await until('taking back', async () => (await stateOf(id)).sending?.undone != null);
}

/** The list of what is not as planned, on the arrival page of a transfer. */
export async function openArrival(page: Page, id: string): Promise<void> {
  await page.goto(`${base}/transfers/${id}/arrival`);
  await expect(page.getByTestId('verdict')).toBeVisible();
}
