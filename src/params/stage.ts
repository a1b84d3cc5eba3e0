import type { ParamMatcher } from '@sveltejs/kit';
import { STAGES } from '$lib/shared/stages';

export const match = ((param: string): param is (typeof STAGES)[number] =>
  (STAGES as readonly string[]).includes(param)) satisfies ParamMatcher;
