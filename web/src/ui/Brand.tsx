import { Link } from "react-router";

export const Brand = () => (
  <Link to="/jobs" className="inline-flex items-center gap-2 font-bold tracking-tight">
    <svg width="20" height="16" viewBox="0 0 20 16" aria-hidden="true">
      <path d="M2 14v-2a9 9 0 0 1 9-9h7" fill="none" stroke="var(--ember)" strokeWidth="3" />
    </svg>
    <span className="whitespace-nowrap max-[1099px]:sr-only">Ash Edge</span>
  </Link>
);
