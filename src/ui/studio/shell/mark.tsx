/** Two posts and a bar that is half up. */
export function Mark() {
  return (
    <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden>
      <path d="M2.5 1.5v15M15.5 1.5v15" stroke="var(--color-ink)" strokeWidth="2.4" />
      <path d="M2.5 12 L15.5 6" stroke="var(--color-open)" strokeWidth="2.4" />
    </svg>
  );
}
