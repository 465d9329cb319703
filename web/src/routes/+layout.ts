// The page is drawn in the browser from what the server computed.
export const ssr = false;
export const prerender = false;
