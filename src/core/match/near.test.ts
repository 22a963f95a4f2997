import { describe, expect, it } from 'vitest';
import { type NamedPlace, placeNamed } from './near';

const place = (name: string, town: string, island: string, lat: number | null): NamedPlace => ({
  name,
  slug: name.toLowerCase().replaceAll(' ', '-'),
  town,
  island,
  lat,
  lng: lat && -60,
});
const PLACES = [
  place('Net Loft', 'Gannet Bay', 'Gannet', 46.1),
  place('Causeway Slip', 'Gannet Bay', 'Gannet', 46.3),
  place('Rowers’ Rest', 'Ternhead', 'Tern', 46.4),
  place('Lamp Room', 'Ternhead', 'Tern', null),
];
const GAZETTEER = {
  format: 1 as const,
  entries: [{ kind: 'landmark' as const, name: 'Herring Cross', town: 'Gannet Bay', island: 'Gannet', line: [{ lat: 46.5, lng: -60.5 }] }],
};

describe('a place that is named', () => {
  it.each([
    ['net loft', 'Net Loft', 46.1],
    ['net-loft', 'Net Loft', 46.1],
    ['rowers rest', 'Rowers’ Rest', 46.4],
    ['GANNET BAY', 'Gannet Bay', 46.2],
    ['gannet', 'Gannet', 46.2],
    ['herring cross', undefined, 46.5],
  ])('%s', (words, name, lat) => {
    const found = placeNamed(words, PLACES, GAZETTEER);
    expect(found?.at.lat).toBeCloseTo(lat, 6);
    if (name) expect(found?.name).toBe(name);
  });

  it('is nowhere where nobody knows it, or where it lies', () => {
    expect(placeNamed('Nowhere At All', PLACES, GAZETTEER)).toBeUndefined();
    expect(placeNamed('Lamp Room', PLACES, { format: 1, entries: [] }) ?? placeNamed('- ’', PLACES, GAZETTEER)).toBeUndefined();
  });
});
