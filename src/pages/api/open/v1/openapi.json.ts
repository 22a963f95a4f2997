/** The interface for other programs as an OpenAPI 3.1 document. */
import type { APIRoute } from 'astro';
import { openApiDocument } from '@/server/open-data/document';
import { openAnswer, preflight } from '@/server/http/open-data';

export const OPTIONS = preflight;

export const GET: APIRoute = ({ locals: { rt, settings } }) =>
  openAnswer(openApiDocument({ name: settings.name, url: rt.siteUrl(), version: '1.0' }));
