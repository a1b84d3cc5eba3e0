import { json } from '@sveltejs/kit';
import { findCourses } from '$lib/server/library/courses';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ url }) =>
  json(await findCourses(url.searchParams.get('q') ?? ''));
