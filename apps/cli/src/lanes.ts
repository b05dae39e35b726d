import { availableParallelism } from 'node:os';
import { inThread, localOf } from '@lithagon/core';
import { threadRunner } from '@lithagon/core/node';

/** Every processor works on local steps; threads are started with the first that is large. */
export const lanes = threadRunner(availableParallelism(), inThread(localOf));
