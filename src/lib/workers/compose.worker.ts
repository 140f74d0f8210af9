import { expose } from 'comlink';
import { composeApi } from './composeApi.ts';

expose(composeApi);
