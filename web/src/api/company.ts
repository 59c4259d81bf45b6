import { useMutation, useQuery } from "@tanstack/react-query";
import { api, reply } from "./client";
import { keys, useRefreshing } from "./queries";

const COMPANY = ["company"] as const;
const STALE = [COMPANY, keys.me, keys.jobs, keys.shoes] as const;
const person = (user_id: number) => ({ params: { path: { user_id } } });

/** The company that the crew is of; null: of none. */
export const useCompany = () =>
  useQuery({ queryKey: COMPANY, queryFn: async () => (await reply(api.GET("/api/company"))) ?? null });

export const useBeginCompany = () =>
  useRefreshing((name: string) => reply(api.POST("/api/company", { body: { name } })), STALE);

export const useNameCompany = () =>
  useRefreshing((name: string) => reply(api.PUT("/api/company", { body: { name } })), STALE);

export const useMakeCompanyLink = () =>
  useMutation({ mutationFn: (_: undefined) => reply(api.POST("/api/company/link")) });

export const useJoinCompany = () =>
  useRefreshing((token: string) => reply(api.POST("/api/company/join", { body: { token } })), STALE);

export const useAddCrew = () =>
  useRefreshing((name: string) => reply(api.POST("/api/company/crews", { body: { name } })), [COMPANY]);

export const useLeaveCompany = () =>
  useRefreshing(
    (crew_id: number) => reply(api.DELETE("/api/company/crews/{crew_id}", { params: { path: { crew_id } } })),
    STALE,
  );

export const useShareRunning = () =>
  useRefreshing(
    ({ id, wanted }: { id: number; wanted: boolean }) =>
      reply(api.PUT("/api/company/people/{user_id}/runs-it", { ...person(id), body: { wanted } })),
    [COMPANY],
  );

export const useLetIn = () =>
  useRefreshing(
    ({ id, wanted }: { id: number; wanted: boolean }) =>
      reply(api.PUT("/api/company/people/{user_id}/let-in", { ...person(id), body: { wanted } })),
    [COMPANY],
  );

export const useShareJob = () =>
  useRefreshing(
    ({ id, wanted }: { id: number; wanted: boolean }) =>
      reply(api.PUT("/api/jobs/{job_id}/shared", { params: { path: { job_id: id } }, body: { wanted } })),
    [keys.jobs],
  );

export const useShareShoe = () =>
  useRefreshing(
    ({ id, wanted }: { id: number; wanted: boolean }) =>
      reply(api.PUT("/api/shoes/{shoe_id}/shared", { params: { path: { shoe_id: id } }, body: { wanted } })),
    [keys.shoes],
  );
