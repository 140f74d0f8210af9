import { expose } from 'comlink';
import { narrationApi } from './narrationApi.ts';

expose(narrationApi);
