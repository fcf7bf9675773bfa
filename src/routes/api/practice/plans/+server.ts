import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** All plans. */
export const GET: RequestHandler = async ({ locals }) => json({ plans: await locals.studio.practice.plans() });
