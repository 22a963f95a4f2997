/** Said wherever somebody is about to send an address that nobody else can open. */
export const ONLY_HERE =
  'Mails and calendar files carry an address that works on this machine only. Before others use the site, set “Address of the site” in Settings, or start it with ALMANAC_ADDRESS.';
