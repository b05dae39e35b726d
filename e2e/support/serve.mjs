// Serves the application with the small demo field, which is made where it is not there yet.
import { serve } from '../../apps/web/server/serve.mjs';
import { demo } from './field.mjs';

await serve({ port: Number(process.argv[2]), demo });
