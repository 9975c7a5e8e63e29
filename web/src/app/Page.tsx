import type { ReactNode } from "react";
import { Link, useLocation } from "react-router";
import { useInbox } from "../inbox/useInbox.ts";
import { Brand } from "../ui/Brand.tsx";
import { ThemeButton } from "../ui/ThemeButton.tsx";

const PLACES = [
  ["/jobs", "Jobs"],
  ["/inbox", "Inbox"],
  ["/tables", "Tables"],
  ["/settings", "Settings"],
  ["/help", "Help"],
] as const;

const isAt = (pathname: string, place: string): boolean => pathname === place || pathname.startsWith(`${place}/`);

/** The top of every screen but the bench: where you are and where you can go. */
export const Page = ({ title, children }: { title: string; children: ReactNode }) => {
  const { pathname } = useLocation();
  const { fresh } = useInbox();
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-13 shrink-0 items-center gap-4 px-4">
        <Brand />
        <nav aria-label="Places" className="flex gap-1">
          {PLACES.map(([to, words]) => (
            <Link
              key={to}
              to={to}
              aria-current={isAt(pathname, to) ? "page" : undefined}
              className={
                "rounded-card px-2.5 py-1 " +
                `${isAt(pathname, to) ? "bg-panel font-semibold" : "text-soft hover:text-ink"}`
              }
            >
              {words}
              {to === "/inbox" && fresh > 0 && (
                <span className="figures ml-1.5 rounded-full bg-ember px-1.5 text-xs font-semibold text-panel">
                  {fresh}
                  <span className="sr-only"> new</span>
                </span>
              )}
            </Link>
          ))}
        </nav>
        <span className="flex-1" />
        <ThemeButton />
      </header>
      <main aria-label={title} className="min-h-0 flex-1 overflow-y-auto px-4 pb-4">
        {children}
      </main>
    </div>
  );
};
