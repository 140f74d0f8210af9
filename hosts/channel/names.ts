export const NAME = 'Wrenfold Loomworks';
export const ATOM = { 'Content-Type': 'application/atom+xml; charset=utf-8' };
