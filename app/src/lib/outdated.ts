/** The status for a page that knows documents of another version than the server (RFC 9110, 426 Upgrade Required). */
export const OUTDATED = 426;
export const OUTDATED_TEXT =
  'This page is older than the server. Reload it: what was drawn is kept in this browser and sent then.';
