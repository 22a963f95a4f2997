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
export type Feature = (typeof FEATURES)[number];

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
