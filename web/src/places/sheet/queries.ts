// What the place of the sheets asks and tells the server.
import { queryOptions } from "@tanstack/react-query";
import { atScreen, client, type Schema, take } from "../../api/client";

export type Sheets = Schema["SheetsOut"];
export type Kind = keyof Sheets["pages"] & ("report" | "letter" | "athlete");
export type PaperSize = "a4" | "us-letter";
export type Words = Schema["WordsOut"];

export const sheetsQuery = (screen: string) =>
  queryOptions({
    queryKey: ["sheets", screen],
    queryFn: () => take(client.GET("/api/screens/{screen_id}/sheets", atScreen(screen))),
  });

/** A page as it will be printed. `made` changes with all that stands on it. */
export const pageQuery = (
  screen: string,
  kind: Kind,
  page: number,
  paper: PaperSize,
  made: string,
) =>
  queryOptions({
    queryKey: ["sheets", screen, "page", kind, page, paper, made],
    queryFn: async () => {
      const drawn = await take(
        client.GET("/api/screens/{screen_id}/sheets/{kind}/pages/{page}", {
          params: { path: { screen_id: screen, kind, page }, query: { paper } },
          parseAs: "text",
        }),
      );
      return `data:image/svg+xml;charset=utf-8,${encodeURIComponent(String(drawn))}`;
    },
    staleTime: Number.POSITIVE_INFINITY,
  });

export const handOver = (screen: string, kind: Kind, paper: PaperSize) =>
  take(
    client.GET("/api/screens/{screen_id}/sheets/{kind}/pdf", {
      params: { path: { screen_id: screen, kind }, query: { paper } },
      parseAs: "blob",
    }),
  );

export const printed = (screen: string, kind: Kind) =>
  take(
    client.POST("/api/screens/{screen_id}/sheets/{kind}/printed", {
      params: { path: { screen_id: screen, kind } },
    }),
  );

export const wordSheet = (screen: string, body: Schema["WordsInput"]) =>
  take(client.POST("/api/screens/{screen_id}/sheets/words", { ...atScreen(screen), body }));

export type Template = Schema["TemplateOut"];

export const templatesQuery = queryOptions({
  queryKey: ["letter templates"],
  queryFn: () => take(client.GET("/api/letter-templates")),
});

export const keepTemplate = (body: Schema["TemplateInput"]) =>
  take(client.POST("/api/letter-templates", { body }));

export const archiveTemplate = (template: string) =>
  take(
    client.POST("/api/letter-templates/{template_id}/archive", {
      params: { path: { template_id: template } },
    }),
  );

export const fillTemplate = (screen: string, body: Schema["FillInput"]) =>
  take(client.POST("/api/screens/{screen_id}/sheets/template", { ...atScreen(screen), body }));
