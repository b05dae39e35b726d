/** What an error says besides its sentence: the object it is about, and what to do. */
export interface ErrorFacts {
  /** Name of the object or file concerned. */
  object?: string;
  /** What the reader can do about it, as a sentence. */
  fix?: string;
}

/** A refusal or failure that is shown to people as it is: what happened, to which object, what to do. */
export class LithagonError extends Error {
  readonly code: string;
  readonly object?: string;
  readonly fix?: string;

  constructor(code: string, message: string, facts: ErrorFacts = {}) {
    super(message);
    this.name = 'LithagonError';
    this.code = code;
    this.object = facts.object;
    this.fix = facts.fix;
  }

  /** One paragraph: the sentence, then what to do. */
  get sentence(): string {
    return this.fix ? `${this.message} ${this.fix}` : this.message;
  }
}

/** Turn anything thrown into a `LithagonError`; an unforeseen one keeps its message. */
export function asLithagonError(cause: unknown): LithagonError {
  if (cause instanceof LithagonError) return cause;
  if (cause instanceof Error && cause.name === 'AbortError')
    return new LithagonError('cancelled', 'The run was cancelled. The project is as it was before.');
  const message = cause instanceof Error ? cause.message : String(cause);
  return new LithagonError('unexpected', `Something went wrong that was not foreseen: ${message}`, {
    fix: 'Nothing was changed. Try again, and report it if it happens again.',
  });
}

/** Throw an `AbortError` if a signal has been given. */
export function stopIf(signal: AbortSignal | undefined): void {
  if (!signal?.aborted) return;
  const error = new Error('cancelled');
  error.name = 'AbortError';
  throw error;
}
