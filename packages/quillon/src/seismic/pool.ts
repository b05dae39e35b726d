import { availableParallelism } from 'node:os';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { type Field, fieldOfDraw } from '../model/field.ts';
import { SURVEY } from '../model/survey.ts';
import { KEPT, MEETS, modelTraces, type TraceSet } from './traces.ts';

interface Task {
  quillonTraces: true;
  seed: number;
  attempt: number;
  places: Float64Array;
}

/** Model traces on all cores. The compiled file is its own worker; from source it runs on this thread. */
export async function modelTracesInParallel(
  field: Field,
  places: Float64Array,
  onProgress?: (part: number) => void,
): Promise<TraceSet> {
  const traces = places.length / 2;
  const threads = import.meta.url.endsWith('.ts') ? 1 : Math.min(availableParallelism(), 8);
  if (threads === 1 || traces < 500)
    return modelTraces(field, places, (done) => done % 500 === 0 && onProgress?.(done / traces));
  const each = Math.ceil(traces / threads);
  const done = new Array<number>(threads).fill(0);
  const parts = await Promise.all(
    done.map(
      (_, w) =>
        new Promise<TraceSet>((resolve, reject) => {
          const task: Task = {
            quillonTraces: true,
            seed: field.seed,
            attempt: field.attempt,
            places: places.slice(2 * w * each, 2 * Math.min(traces, (w + 1) * each)),
          };
          const worker = new Worker(new URL(import.meta.url), { workerData: task });
          worker.on('error', reject);
          worker.on('message', (message: number | TraceSet) => {
            if (typeof message !== 'number') return resolve(message);
            done[w] = message;
            onProgress?.(done.reduce((a, b) => a + b, 0) / traces);
          });
        }),
    ),
  );
  const stacks = parts[0].stacks.map(() => new Float32Array(traces * SURVEY.samples));
  const horizons = new Float32Array(traces * KEPT.length * MEETS * 2);
  let at = 0;
  for (const part of parts) {
    part.stacks.forEach((stack, a) => {
      stacks[a].set(stack, at * SURVEY.samples);
    });
    horizons.set(part.horizons, at * KEPT.length * MEETS * 2);
    at += part.stacks[0].length / SURVEY.samples;
  }
  return { stacks, horizons };
}

const task = workerData as Task | null;
if (!isMainThread && task?.quillonTraces && parentPort) {
  const port = parentPort;
  const set = modelTraces(
    fieldOfDraw(task.seed, task.attempt) as Field,
    task.places,
    (n) => n % 500 === 0 && port.postMessage(n),
  );
  port.postMessage(set, [set.horizons.buffer, ...set.stacks.map((s) => s.buffer)] as ArrayBuffer[]);
}
