import * as Comlink from 'comlink';
import { depthJobs } from './jobs/depth';
import { filesJobs } from './jobs/files';
import { inversionJobs } from './jobs/inversion';
import { planesJobs } from './jobs/planes';
import { projectJobs } from './jobs/project';
import { cancel, hearBy, writeAs } from './jobs/task';
import { wellsJobs } from './jobs/wells';
import { workOn } from './lanes';

const api = {
  ...filesJobs,
  ...projectJobs,
  ...wellsJobs,
  ...inversionJobs,
  ...depthJobs,
  ...planesJobs,
  cancel,
  hearBy,
  workOn,
  writeAs,
};

export type WorkerApi = typeof api;

Comlink.expose(api);
