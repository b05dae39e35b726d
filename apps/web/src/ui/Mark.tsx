/** Lithagon's mark: a hexagon with two beds. */
export function Mark({ size = 22 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 22 22" aria-hidden="true">
      <path d="M11 1 20 6v10l-9 5-9-5V6Z" fill="none" stroke="var(--ink)" strokeWidth="1.5" strokeLinejoin="round" />
      <path
        d="M2 9.5c4-2.6 6 1.7 9 .2s5-2.6 9-.6M2 13.6c4-2.2 6 1.6 9 .3s5-2.2 9-.4"
        fill="none"
        stroke="var(--ochre)"
        strokeWidth="1.5"
      />
    </svg>
  );
}
