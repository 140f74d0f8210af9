import { expose } from 'comlink';
import { coreApi } from './coreApi.ts';

expose(coreApi);
