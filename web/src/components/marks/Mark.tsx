/** Two half discs, the right one a step higher. */
export function Mark({ size = 26 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="6 4 20 24" aria-hidden="true" focusable="false">
      <path d="M15 11 A8 8 0 0 0 15 27 Z" fill="var(--lake)" />
      <path d="M17 5 A8 8 0 0 1 17 21 Z" fill="var(--clay)" />
    </svg>
  );
}
