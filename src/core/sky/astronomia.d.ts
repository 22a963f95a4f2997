/** What is used of a package that has no types of its own. */
declare module 'astronomia/solstice' {
  /** The Julian day (dynamical time) of an equinox or a solstice of a year. */
  type FindSeason = (year: number) => number;
  export const march: FindSeason;
  export const june: FindSeason;
  export const september: FindSeason;
  export const december: FindSeason;
}

declare module 'astronomia/deltat' {
  /** Dynamical time less universal time of a year, in seconds. */
  export const deltaT: (year: number) => number;
}
