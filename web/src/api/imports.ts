import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, reply } from "./client";
import { keys, useRefreshing } from "./queries";
import type { ImportOut, Meant, TakeImport } from "./types";

const BETWEEN_LOOKS = 600;
const key = (id: number) => ["import", id];

/** Whether a file still comes, or is being read. */
export const isBeingRead = (file: ImportOut | undefined) =>
  file?.state === "coming" || file?.state === "waiting" || file?.state === "running";

/** How it goes with a file that is read in, and what it says. */
export function useImport(id: number) {
  const client = useQueryClient();
  return useQuery({
    queryKey: key(id),
    queryFn: async () => {
      const told = await reply(api.GET("/api/imports/{import_id}", { params: { path: { import_id: id } } }));
      // What an archive brings is there once it is taken, in the background.
      const before = client.getQueryData<ImportOut>(key(id));
      if (told.archive && told.state === "taken" && before?.state !== "taken") {
        // Not this question itself: it would wait for its own answer.
        void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== key(id)[0] });
      }
      return told;
    },
    enabled: id > 0,
    refetchInterval: (query) => (isBeingRead(query.state.data) ? BETWEEN_LOOKS : false),
  });
}

interface Sent {
  file: File;
  /** How much of it is there, from 0 to 1. */
  onPart: (done: number) => void;
}

/** Sends a file, part by part; it is read once all of it is there. */
export const useSendFile = () => useRefreshing(sendFile, []);

async function sendFile({ file, onPart }: Sent): Promise<ImportOut> {
  let told = await reply(
    api.POST("/api/imports", { body: { name: file.name.slice(-120) || "file", length: file.size } }),
  );
  const { id, part_length } = told;
  for (let at = 0, number = 0; at < file.size; at += part_length, number += 1) {
    const data = await inBase64(file.slice(at, at + part_length));
    const path = { import_id: id };
    told = await reply(
      api.POST("/api/imports/{import_id}/parts", { params: { path }, body: { number, data } }),
    );
    onPart(Math.min(1, (at + part_length) / file.size));
  }
  return told;
}

const inBase64 = (part: Blob) =>
  new Promise<string>((done, failed) => {
    const reader = new FileReader();
    reader.onload = () => done(String(reader.result).split(",", 2)[1] ?? "");
    reader.onerror = () => failed(reader.error);
    reader.readAsDataURL(part);
  });

/** Reads a file anew, as it is meant. */
export function useReadAnew(id: number) {
  const client = useQueryClient();
  return useRefreshing(
    async (body: Meant) => {
      const path = { import_id: id };
      const told = await reply(api.POST("/api/imports/{import_id}/read", { params: { path }, body }));
      client.setQueryData(key(id), told);
      return told;
    },
    [key(id)],
  );
}

/** Makes what was read runs of a job. */
export const useTakeImport = (id: number) =>
  useRefreshing(
    (body: TakeImport) =>
      reply(api.POST("/api/imports/{import_id}/take", { params: { path: { import_id: id } }, body })),
    [keys.jobs, key(id), ["cuts"]],
  );

/** Where a run that was read is seen from the front. */
export const addressOfPicture = (id: number, number: number) => `/api/imports/${id}/runs/${number}/picture`;

/** Makes an archive part of the crew. */
export const useUnpack = (id: number) =>
  useRefreshing(
    (name: string) =>
      reply(
        api.POST("/api/imports/{import_id}/unpack", { params: { path: { import_id: id } }, body: { name } }),
      ),
    [key(id)],
  );
