/** Text over whatever the map shows. */
export const HALO = { fill: 'var(--ink)', stroke: 'var(--vellum)', strokeWidth: 3, paintOrder: 'stroke' } as const;
