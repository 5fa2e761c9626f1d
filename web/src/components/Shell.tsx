import { useQueryClient } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Link } from "react-router";
import { signOut } from "../api/session";
import { theme } from "../state/preferences";
import { Mark } from "./Mark";
import { useSession } from "./session";
import { useStore } from "./useStore";

interface Props {
  who?: ReactNode;
  places?: ReactNode;
  urgent?: ReactNode;
  children: ReactNode;
}

/** The frame of every place: who it is about, what is urgent, where to go. */
export function Shell({ who, places, urgent, children }: Props) {
  return (
    <div className="shell">
      <header className="topbar">
        <Link className="brand" to="/people">
          <Mark />
          North Stride
        </Link>
        <div className="who">{who}</div>
        {places}
        <ThemeSwitch />
        <Leave />
      </header>
      <div className="urgent-bars">{urgent}</div>
      <main>{children}</main>
    </div>
  );
}

function ThemeSwitch() {
  const now = useStore(theme);
  return (
    <button
      type="button"
      className="place"
      onClick={() => theme.set(now === "dim" ? "light" : "dim")}
    >
      {now === "dim" ? "Light" : "Dim"}
    </button>
  );
}

function Leave() {
  const session = useSession();
  const queries = useQueryClient();
  const leave = async () => {
    await signOut();
    queries.clear();
    window.location.assign("/");
  };
  return (
    <button
      type="button"
      className="place"
      onClick={leave}
      title={`${session.name}, ${session.role}`}
    >
      Sign out
    </button>
  );
}
