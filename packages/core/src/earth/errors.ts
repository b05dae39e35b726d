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

/** What the system says when it will not write, in sentences; by its own code or name. */
const REFUSALS: Record<string, [code: string, message: string, fix: string]> = {
  ENOSPC: ['space', 'There is no space left on the disk.', 'Free some, and try again.'],
  EDQUOT: ['space', 'Your share of the disk is used up.', 'Free some of it, and try again.'],
  QuotaExceededError: [
    'space',
    'The browser gives this site no more space.',
    'Delete objects or projects that you no longer need, or free space on the disk, and try again.',
  ],
  EROFS: ['access', 'The disk can only be read.', 'Choose a place that can be written to.'],
  EACCES: ['access', 'You may not write there.', 'Ask for the right to, or choose another place.'],
  EPERM: ['access', 'You may not write there.', 'Ask for the right to, or choose another place.'],
  EMFILE: ['files', 'Too many files are open.', 'Close other programs, and try again.'],
  ENOTDIR: ['file', 'A part of the path is no folder.', 'Check the path.'],
  EISDIR: ['file', 'The path is that of a folder.', 'Give the path of a file.'],
};

/** Turn anything thrown into a `LithagonError`; an unforeseen one keeps its message. */
export function asLithagonError(cause: unknown): LithagonError {
  if (cause instanceof LithagonError) return cause;
  // errors of the browser are not always of this thread's own kind
  const {
    name = '',
    code,
    path,
    message,
  } = (typeof cause === 'object' && cause ? cause : {}) as Record<string, unknown>;
  if (name === 'AbortError') return new LithagonError('cancelled', 'Cancelled. Nothing of it was kept.');
  const known = [code, name].find((each): each is string => typeof each === 'string' && Object.hasOwn(REFUSALS, each));
  if (known) {
    const [kind, sentence, fix] = REFUSALS[known];
    const where = typeof path === 'string' ? ` (${path})` : '';
    return new LithagonError(kind, sentence.replace(/\.$/, `${where}.`), { fix });
  }
  const said = [message, name, code, cause].find((each) => typeof each === 'string' && each.trim() !== '');
  return new LithagonError(
    'unexpected',
    `Something went wrong that was not foreseen: ${said ?? 'nothing was said of it'}.`,
    {
      fix: 'Try again, and report it if it happens again.',
    },
  );
}

/** Throw an `AbortError` if a signal has been given. */
export function stopIf(signal: AbortSignal | undefined): void {
  if (!signal?.aborted) return;
  const error = new Error('cancelled');
  error.name = 'AbortError';
  throw error;
}

/** An error as it crosses from one thread to another. */
export interface PlainError {
  code: string;
  message: string;
  object?: string;
  fix?: string;
}

export function plain(cause: unknown): PlainError {
  const { code, message, object, fix } = asLithagonError(cause);
  return { code, message, object, fix };
}

/** The same on the other side: a cancel is one there too. */
export function thrown({ code, message, object, fix }: PlainError): Error {
  const error = new LithagonError(code, message, { object, fix });
  if (code === 'cancelled') error.name = 'AbortError';
  return error;
}
