/** A filtered view for readers of news: the same query as the view's address. */
import type { APIRoute } from 'astro';
import { feedResponse } from '@/components/feeds';

export const GET: APIRoute = ({ url, locals }) => feedResponse(locals, url, 'rss');
