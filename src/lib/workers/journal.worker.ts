import { expose } from 'comlink';
import { journalApi } from './journalApi.ts';

expose(journalApi);
