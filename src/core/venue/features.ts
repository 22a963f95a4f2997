/** What a venue offers to those who need it, as people ask for it on the telephone. */
export const FEATURES = [
  'step-free',
  'hearing-loop',
  'parking',
  'accessible-parking',
  'toilets',
  'accessible-toilet',
  'quiet-room',
  'baby-changing',
  'assistance-dogs',
  'lift',
] as const;
/** One of the features that a venue may have. */
export type Feature = (typeof FEATURES)[number];

/** Each feature as a reader reads it, in English. */
export const FEATURE_WORDS: Record<Feature, string> = {
  'step-free': 'Step-free way in',
  'hearing-loop': 'Hearing loop',
  parking: 'Parking',
  'accessible-parking': 'Parking for disabled people',
  toilets: 'Toilets',
  'accessible-toilet': 'Accessible toilet',
  'quiet-room': 'Quiet room',
  'baby-changing': 'Baby changing',
  'assistance-dogs': 'Assistance dogs welcome',
  lift: 'Lift',
};
