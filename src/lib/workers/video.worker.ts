import { expose } from 'comlink';
import { videoApi } from './videoApi.ts';

expose(videoApi);
