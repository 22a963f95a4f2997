/** Where lines wait that were pasted into a field of one line, until the page that reads many of them opens. */
export const PASTED_LINES = 'almanac.pasted-lines';
