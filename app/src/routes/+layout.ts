// The desk lives in the browser: pages are drawn there, the server sends data.
export const ssr = false;
