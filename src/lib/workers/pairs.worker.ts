import { expose } from 'comlink';
import { pairsApi } from './pairsApi.ts';

expose(pairsApi);
