/** Whether this version of the application may touch what is kept here, for those who do not know the database. */
export { isOfLaterVersion, onBlocked, onReplaced, TABLES_VERSION } from './db.ts';
