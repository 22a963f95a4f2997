/** The calendar feed of any filtered view: the same query as the view's address. */
import type { APIRoute } from 'astro';
import { calendarResponse } from '@/components/feeds';

export const GET: APIRoute = ({ url, locals }) => calendarResponse(locals, url);
