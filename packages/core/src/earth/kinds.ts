import type { z } from 'zod';

/** Schemas of kinds that were made known besides those that every project may hold. */
const schemas = new Map<string, z.ZodType>();

export function registerSchema(kind: string, schema: z.ZodType): void {
  schemas.set(kind, schema);
}

export function forgetSchema(kind: string): void {
  schemas.delete(kind);
}

export const schemaNamed = (kind: unknown): z.ZodType | undefined =>
  typeof kind === 'string' ? schemas.get(kind) : undefined;
