import { coreTests } from './coreTests.ts';

await coreTests(0);
