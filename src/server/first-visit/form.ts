/** The form of the first visit: what was posted, and what of it is shown again. */
import { type Bounds, inBounds } from '@/core/geo/geo';
import type { World } from '../world/world';
import { type Look, lookAt } from './follows';
import { closerTo, fartherFrom, pressed, viewOf } from './pin';
import { type Answers, answersShape } from './state';

/** The form as it is shown. */
export interface Shown {
  answers: Answers;
  look: Look;
  /** what its chart shows */
  bounds: Bounds;
}

/** The form with answers that were kept. */
export async function showForm(world: World, answers: Answers): Promise<Shown> {
  const look = await lookAt(world, answers);
  return { answers, look, bounds: viewOf('', look.place) };
}

/** Degrees that were typed over those that stood there mean the point, whichever town is chosen. `shown`: which stood there, `lat,lng`. */
const typedDegrees = ({ lat = '', lng = '', shown }: Readonly<Record<string, string>>): boolean =>
  shown !== undefined && lat.trim() !== '' && lng.trim() !== '' && `${lat},${lng}` !== shown;

/** Reads a posted form: what was answered, and where its chart was pressed. */
export async function takeForm(world: World, fields: Readonly<Record<string, string>>): Promise<Shown> {
  const posted = answersShape.parse(fields);
  const answers: Answers = typedDegrees(fields) ? { ...posted, place: 'pin' } : posted;
  const look = await lookAt(world, answers);
  const seen = viewOf(fields.view ?? '', look.place);
  const point = pressed(fields, seen);
  if (point) {
    const moved: Answers = { ...answers, place: 'pin', lat: String(point.lat), lng: String(point.lng) };
    return { answers: moved, look: await lookAt(world, moved), bounds: closerTo(point, seen) };
  }
  if (fields.do === 'farther') return { answers, look, bounds: fartherFrom(seen) };
  const stays = answers.place === 'pin' && look.place && inBounds(look.place, seen);
  return { answers, look, bounds: stays ? seen : viewOf('', look.place) };
}
