import { expose } from 'comlink';
import { takesApi } from './takesApi.ts';

expose(takesApi);
