/** Where the Desk opens: on a new site on what comes first, else on today. */
import type { APIRoute } from 'astro';
import { readFirstSteps, stepsLeft } from '@/server/first-visit/first-steps';

export const GET: APIRoute = async ({ locals: { actor, rt }, redirect }) => {
  const steps = actor?.role === 'coordinator' ? await readFirstSteps(rt) : undefined;
  return redirect(steps && stepsLeft(steps) ? '/desk/first-steps' : '/desk/today');
};
