import { expose } from 'comlink';
import { reachApi } from './reachApi.ts';

expose(reachApi);
