import { expose } from 'comlink';
import { soundApi } from './soundApi.ts';

expose(soundApi);
