/** Venues and organizers as pages show them. What is for editors alone, or not to be told exactly, is not in them. */
import type { organizer, venue } from '../db/schema';

/** A venue's row. */
export type VenueRow = typeof venue.$inferSelect;
/** An organizer's row. */
export type OrganizerRow = typeof organizer.$inferSelect;

/** A venue as pages show it: a room has its hall's address, an area no street. */
export interface VenueView extends Omit<VenueRow, 'notes'> {
  /** the hall that it is a room of; its address and position are the room's */
  hall: { id: string; name: string; slug: string; binned: boolean } | undefined;
}
/** An organizer as pages show it. */
export type OrganizerView = Omit<OrganizerRow, 'notes'>;

/** An area is told to this many degrees: about two kilometres. */
const AREA_DEGREES = 0.02;
const roughly = (degrees: number | null): number | null =>
  degrees === null ? null : Number((Math.round(degrees / AREA_DEGREES) * AREA_DEGREES).toFixed(2));

/** Rooms with their hall's address; areas without their street and with a position that is rounded. */
export function venueViews(rows: readonly VenueRow[]): VenueView[] {
  const byId = new Map(rows.map((row) => [row.id, row]));
  return rows.map(({ notes: _, ...row }) => {
    const hall = row.parentId ? byId.get(row.parentId) : undefined;
    const inherited = hall ? inherit(row, hall) : row;
    const area = inherited.areaOnly ? { street: '', postcode: '', lat: roughly(inherited.lat), lng: roughly(inherited.lng) } : {};
    return { ...inherited, ...area, hall: hall && { id: hall.id, name: hall.name, slug: hall.slug, binned: hall.binnedAt !== null } };
  });
}

function inherit<T extends Omit<VenueRow, 'notes'>>(room: T, hall: VenueRow): T {
  const { street, town, region, postcode, country, island, lat, lng, areaOnly } = hall;
  const either = { access: room.access || hall.access, phone: room.phone || hall.phone, mail: room.mail || hall.mail };
  const more = { website: room.website || hall.website, hours: room.hours ?? hall.hours, pictureId: room.pictureId ?? hall.pictureId };
  const features = room.features.length ? room.features : hall.features;
  return { ...room, street, town, region, postcode, country, island, lat, lng, areaOnly, ...either, ...more, features };
}

/** An organizer without what is for editors alone. */
export function organizerView({ notes: _, ...row }: OrganizerRow): OrganizerView {
  return row;
}
