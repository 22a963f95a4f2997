/** What the site keeps of its street map beside the file. One JSON value with a format number. */
import type { Bounds } from '@/core/geo/geo';

/** What the site keeps of an archive that it can draw. */
export interface Looked {
  bounds: Bounds;
  minZoom: number;
  maxZoom: number;
  /** who made its data, as the archive says; HTML is taken out when it is shown */
  attribution: string;
}

/** A street map that the site has. */
export interface KeptStreets extends Looked {
  format: 1;
  /** the beginning of its file's SHA-256, part of the address of each tile */
  version: string;
  /** the file as it was called */
  name: string;
  bytes: number;
  /** when it was taken in, ISO 8601 in UTC */
  at: string;
  /** somebody took it off the map; its file is still there */
  off?: boolean;
}
