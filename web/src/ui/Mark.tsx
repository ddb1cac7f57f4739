/** The hinge: two legs and a gold pin. */
export function Mark({ size = 24 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" fill="none" aria-hidden>
      <path d="M12 5 4.5 21M12 5l7.5 16" stroke="currentColor" strokeWidth="2" strokeLinecap="round" />
      <circle cx="12" cy="5" r="3" fill="var(--gold)" />
    </svg>
  );
}
