import { asLithagonError } from '@lithagon/core';
import type { Output } from './output.ts';

/** Print what went wrong: a sentence on stderr, and with `--json` one document on stdout. */
export function refuse(cause: unknown, json: boolean, output: Output): number {
  const error = asLithagonError(cause);
  output.err(error.sentence);
  if (json)
    output.out(
      JSON.stringify({ error: { code: error.code, message: error.message, object: error.object, fix: error.fix } }),
    );
  return 1;
}
