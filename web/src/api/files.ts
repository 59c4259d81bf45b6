import { useMutation, useQuery } from "@tanstack/react-query";
import { api, reply } from "./client";
import type { ExportIn, ExportOut } from "./types";

export type FileOf = "run" | "job" | "crew";

/** What can be had in which format. */
export const useFormats = () =>
  useQuery({ queryKey: ["formats"], queryFn: () => reply(api.GET("/api/formats")), staleTime: Infinity });

/** Asks for a file of a run, a job, or all that the crew has. */
export const useAskForFile = (of: FileOf, id: number) =>
  useMutation({ mutationFn: (body: ExportIn) => reply(ASKING[of](id, body)) });

const ASKING = {
  run: (id: number, body: ExportIn) =>
    api.POST("/api/runs/{run_id}/exports", { params: { path: { run_id: id } }, body }),
  job: (id: number, body: ExportIn) =>
    api.POST("/api/jobs/{job_id}/exports", { params: { path: { job_id: id } }, body }),
  crew: (_: number, body: ExportIn) => api.POST("/api/crew/exports", { body }),
};

const BETWEEN_LOOKS = 700;

/** Whether a file waits to be made, or is being made. */
export const isBeingMade = (file: ExportOut | undefined) =>
  file?.state === "waiting" || file?.state === "running";

/** How it goes with a file that was asked for. */
export const useFile = (asked: ExportOut) =>
  useQuery({
    queryKey: ["file", asked.id],
    queryFn: () => reply(api.GET("/api/exports/{export_id}", { params: { path: { export_id: asked.id } } })),
    initialData: asked,
    refetchInterval: (query) => (isBeingMade(query.state.data) ? BETWEEN_LOOKS : false),
  });

/** Where a file that is made is fetched from. */
export const addressOfFile = (id: number) => `/api/exports/${id}/file`;
