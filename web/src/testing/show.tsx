// A component as it stands in the app: signed in, with queries and addresses around it.
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { MemoryRouter } from "react-router";
import { render } from "vitest-browser-react";
import type { Session } from "../api/session";
import { SessionContext } from "../components/base/session";

export const SESSION = {
  name: "K. Aalto",
  user_id: "u",
  clinic_id: "c",
  clinic: "Tarnholt",
  role: "practitioner",
  time_zone: "UTC",
  token: "t",
  seal_key: "k",
} as unknown as Session;

const quiet = { queries: { retry: false }, mutations: { retry: false } };

let next = SESSION;

function Around({ children }: { children: ReactNode }) {
  const [session] = useState(next);
  const [queries] = useState(() => new QueryClient({ defaultOptions: quiet }));
  return (
    <QueryClientProvider client={queries}>
      <SessionContext value={{ session, leave: () => {} }}>
        <MemoryRouter>{children}</MemoryRouter>
      </SessionContext>
    </QueryClientProvider>
  );
}

export function showAs(session: Session, node: ReactNode) {
  next = session;
  return render(node, { wrapper: Around });
}

export const show = (node: ReactNode) => showAs(SESSION, node);
