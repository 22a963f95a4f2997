/** A filtered view's dates for other programs: the same query as the view's address, and `from` and `to`. */
import type { APIRoute } from 'astro';
import { datesResponse } from '@/components/feeds';

export const GET: APIRoute = ({ url, locals }) => datesResponse(locals, url, 'geojson');
