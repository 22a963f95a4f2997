/** What a phone needs to keep the site on its home screen (W3C Web Application Manifest). */
import type { APIRoute } from 'astro';
import { GROUND } from '@/components/ground';
import { LANGUAGE_TAGS } from '@/core/phrase/language';

export const GET: APIRoute = ({ locals: { settings, reader } }) => {
  const icons = [192, 512].map((size) => ({ src: `/mark-${size}.png`, sizes: `${size}x${size}`, type: 'image/png' }));
  const manifest = {
    name: settings.name,
    description: settings.about || undefined,
    lang: LANGUAGE_TAGS[reader.language],
    start_url: reader.to('/'),
    scope: '/',
    display: 'minimal-ui',
    background_color: GROUND.light,
    theme_color: GROUND.light,
    icons: [...icons, { src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' }],
  };
  return new Response(JSON.stringify(manifest), { headers: { 'content-type': 'application/manifest+json; charset=utf-8' } });
};
