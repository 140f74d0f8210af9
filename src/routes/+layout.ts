// The data lives in the browser: there is nothing for the server to draw.
export const ssr = false;
