import { expose } from 'comlink';
import { voiceApi } from './voiceApi.ts';

expose(voiceApi);
