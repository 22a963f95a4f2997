/** What each part of the form is given. */
import type { ListingContent } from '@/core/listing/content';
import type { Listing } from '../use-listing';

export interface PartProps {
  content: ListingContent;
  setContent: Listing['setContent'];
  error: (name: string) => string | undefined;
}
