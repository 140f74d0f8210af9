/** Characters that titles are proposed for: a short and a longer kind. Apart, because pages need them and no model. */
export const TITLE_LENGTHS = { short: 60, long: 80 };
