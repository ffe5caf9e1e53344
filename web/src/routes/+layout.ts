// Everything is shown by the browser, from what the server computes: there is nothing to render ahead.
export const ssr = false;
export const prerender = false;
