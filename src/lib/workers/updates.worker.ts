import { expose } from 'comlink';
import { updatesApi } from './updatesApi.ts';

expose(updatesApi);
