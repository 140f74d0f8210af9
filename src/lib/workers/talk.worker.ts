import { expose } from 'comlink';
import { talkApi } from './talkApi.ts';

expose(talkApi());
