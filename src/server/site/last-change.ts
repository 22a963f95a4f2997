/** What was changed last in a section of the settings, so that it can be put back. One JSON value with a format number. */
import type { SiteSettings } from './settings';

/** What was changed last in a section, and how it was before. */
export interface LastChange {
  format: 1;
  before: Partial<SiteSettings>;
  after: Partial<SiteSettings>;
  /** when, ISO 8601 in UTC */
  at: string;
  by: string;
  /** it put back what the change before it had made */
  undone: boolean;
}
