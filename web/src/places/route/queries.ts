// What Route asks and tells the server beside the screen's own route.
import { queryOptions } from "@tanstack/react-query";
import { client, type Schema, take } from "../../api/client";

export const clinicRoutesQuery = queryOptions({
  queryKey: ["clinic routes"],
  queryFn: () => take(client.GET("/api/routes")),
});

export const keepRoute = (body: Schema["ClinicRouteInput"]) =>
  take(client.POST("/api/routes", { body }));

export const dropRoute = (id: string) =>
  take(client.POST("/api/routes/{route_id}/archive", { params: { path: { route_id: id } } }));
