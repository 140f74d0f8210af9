import { expose } from 'comlink';
import { archiveApi } from './archiveApi.ts';

expose(archiveApi);
