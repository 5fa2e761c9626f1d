import { kept } from "./early";
import "@fontsource/atkinson-hyperlegible-next/400.css";
import "@fontsource/atkinson-hyperlegible-next/700.css";
import "@fontsource/atkinson-hyperlegible-mono/400.css";
import "@fontsource/atkinson-hyperlegible-mono/700.css";
import "./theme/bootstrap.scss";
import "./theme/tokens.css";
import "./theme/base.css";
import "./theme/parts.css";
import "./theme/figure.css";
import "./state/device/preferences";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { Problem } from "./api/problem";
import type { Session } from "./api/session";
import { App } from "./app";
import { beginAt } from "./begin";
import { followLanes } from "./state/device/lanes";

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      // A server that is away is asked again; a refusal is not, and what fails there only a few times.
      retry: (count, error) =>
        error instanceof Problem && error.passing && (error.code !== "unexpected" || count < 3),
      retryDelay: (count) => Math.min(500 * 2 ** count, 5000),
      refetchOnWindowFocus: false,
      networkMode: "always",
    },
    mutations: { networkMode: "always" },
  },
});

const begun = beginAt(window.location.pathname, queries, kept);
followLanes();

const root = document.getElementById("root");
if (root) void begun.then((first) => show(root, first));

function show(at: HTMLElement, first: Session | null): void {
  createRoot(at).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <App first={first} />
        </BrowserRouter>
      </QueryClientProvider>
    </StrictMode>,
  );
}
