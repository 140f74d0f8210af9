/** Whether this version of the application may touch what is kept here, for those who do not know the database. */
export { isOfLaterVersion, onReplaced } from './db.ts';
