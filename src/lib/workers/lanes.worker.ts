import { expose } from 'comlink';
import { lanesApi } from './lanesApi.ts';

expose(lanesApi);
