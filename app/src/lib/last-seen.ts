/** Header by which the service worker says that an answer is an earlier one, since the server is away. */
export const LAST_SEEN = 'x-mirrot-last-seen';
