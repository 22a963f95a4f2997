/** Views reach over these years; outside there is nothing, and robots would walk for ever. */
export const inReach = (year: number): boolean => year >= 1990 && year <= 2100;
