import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { takeAsNow } from "./after-writes";
import { api, reply } from "./client";
import { dropOthers, ownerOf, tellOtherTabs } from "./owner";
import { keys, useRefreshing } from "./queries";
import type { Me, NewPerson, Role } from "./types";

const PEOPLE = ["people"] as const;
const SESSIONS = ["sessions"] as const;
const HISTORY = ["history"] as const;

/** Who is in the crew, what each role may do, and for its lead the open invitations. */
export const usePeople = () => useQuery({ queryKey: PEOPLE, queryFn: () => reply(api.GET("/api/people")) });

export const useInvite = () =>
  useRefreshing(
    (body: { role: Role; name: string }) => reply(api.POST("/api/people/invitations", { body })),
    [PEOPLE, HISTORY],
  );

export const useWithdraw = () =>
  useRefreshing(
    (id: number) =>
      reply(
        api.DELETE("/api/people/invitations/{invitation_id}", { params: { path: { invitation_id: id } } }),
      ),
    [PEOPLE, HISTORY],
  );

export const useChangeRole = () =>
  useRefreshing(
    ({ id, role }: { id: number; role: Role }) =>
      reply(api.PUT("/api/people/{member_id}/role", { params: { path: { member_id: id } }, body: { role } })),
    [PEOPLE, HISTORY, keys.me],
  );

export const useRemoveMember = () =>
  useRefreshing(
    (id: number) => reply(api.DELETE("/api/people/{member_id}", { params: { path: { member_id: id } } })),
    [PEOPLE, HISTORY],
  );

export const useNameCrew = () =>
  useRefreshing((name: string) => reply(api.PUT("/api/crew", { body: { name } })), [keys.me]);

/** Whether what only leads may takes a second factor. */
export const useWantCodesOfLeads = () =>
  useRefreshing(
    (wanted: boolean) => reply(api.PUT("/api/crew/codes-of-leads", { body: { wanted } })),
    [keys.me],
  );

/** How the crew's new runs are read. */
export const useSetNewRuns = () =>
  useRefreshing((body: Me["new_runs"]) => reply(api.PUT("/api/crew/new-runs", { body })), [keys.me]);

export const usePasswordLink = () =>
  useRefreshing(
    (id: number) =>
      reply(api.POST("/api/people/{member_id}/password-link", { params: { path: { member_id: id } } })),
    [HISTORY],
  );

const SECOND_FACTOR = ["second-factor"] as const;

export const useSecondFactor = () =>
  useQuery({ queryKey: SECOND_FACTOR, queryFn: () => reply(api.GET("/api/me/second-factor")) });

export const useBeginSecondFactor = () =>
  useMutation({ mutationFn: () => reply(api.POST("/api/me/second-factor")) });

export const useConfirmSecondFactor = () =>
  useRefreshing(
    (code: string) => reply(api.POST("/api/me/second-factor/confirm", { body: { code } })),
    [SECOND_FACTOR, PEOPLE],
  );

export const useTurnOffSecondFactor = () =>
  useRefreshing(
    (password: string) => reply(api.POST("/api/me/second-factor/off", { body: { password } })),
    [SECOND_FACTOR, PEOPLE],
  );

export const useTakeAwaySecondFactor = () =>
  useRefreshing(
    (id: number) =>
      reply<unknown>(
        api.DELETE("/api/people/{member_id}/second-factor", { params: { path: { member_id: id } } }),
      ),
    [PEOPLE, HISTORY],
  );

/** The crew's history, the last lines first; narrowed to what was done. */
export const useHistory = (what: string) =>
  useInfiniteQuery({
    queryKey: [...HISTORY, what],
    queryFn: ({ pageParam }) =>
      reply(api.GET("/api/history", { params: { query: { what, before: pageParam } } })),
    initialPageParam: null as string | null,
    getNextPageParam: (last) => (last.more ? last.lines.at(-1)?.at : undefined),
  });

export const useSessions = () =>
  useQuery({ queryKey: SESSIONS, queryFn: () => reply(api.GET("/api/me/sessions")) });

export const useSignOutThere = () =>
  useRefreshing(
    (id: string) =>
      reply(api.DELETE("/api/me/sessions/{session_id}", { params: { path: { session_id: id } } })),
    [SESSIONS],
  );

export const useSignOutElsewhere = () =>
  useRefreshing((_: undefined) => reply(api.DELETE("/api/me/sessions")), [SESSIONS, HISTORY]);

export const useChangeNames = () =>
  useRefreshing(
    (body: { username: string; first: string; last: string; email: string; password: string }) =>
      reply(api.PUT("/api/me", { body })),
    [keys.me, PEOPLE],
  );

export const useChangePassword = () =>
  useRefreshing(
    (body: { old: string; new: string }) => reply(api.PUT("/api/me/password", { body })),
    [SESSIONS],
  );

/** What an invitation is to. */
export const useInvitation = (token: string) =>
  useQuery({
    queryKey: ["invitation", token],
    queryFn: () => reply(api.GET("/api/invitations/{token}", { params: { path: { token } } })),
    retry: false,
  });

/** Whose password a link sets. */
export const usePasswordLinkFor = (token: string) =>
  useQuery({
    queryKey: ["password-link", token],
    queryFn: () => reply(api.GET("/api/password-links/{token}", { params: { path: { token } } })),
    retry: false,
  });

export const useIsBeginningNeeded = () =>
  useQuery({ queryKey: ["beginning"], queryFn: () => reply(api.GET("/api/beginning")), retry: false });

/** Has a link for a forgotten password sent, where the server sends mail. */
export const useAskForPasswordLink = () =>
  useMutation({
    mutationFn: (known_as: string) => reply<unknown>(api.POST("/api/password-links", { body: { known_as } })),
  });

const PROVIDER = ["provider"] as const;

/** The company's own sign-in, as far as it is the person's. */
export const useMyProvider = () =>
  useQuery({ queryKey: PROVIDER, queryFn: () => reply(api.GET("/api/me/provider")) });

export const useLeaveProvider = () =>
  useRefreshing((_: undefined) => reply(api.DELETE("/api/me/provider")), [PROVIDER, HISTORY]);

export const ways = {
  byCode: (code: string) => reply(api.POST("/api/session/code", { body: { code } })),
  begin: (token: string, crew: string, person: NewPerson) =>
    reply(api.POST("/api/beginning", { body: { ...person, token, crew } })),
  joinAsMyself: (token: string) =>
    reply(api.POST("/api/invitations/{token}/join", { params: { path: { token } } })),
  joinAsNew: (token: string, person: NewPerson) =>
    reply(api.POST("/api/invitations/{token}/person", { params: { path: { token } }, body: person })),
  setPassword: (token: string, password: string, code: string) =>
    reply(api.POST("/api/password-links/{token}", { params: { path: { token } }, body: { password, code } })),
  switchCrew: (crew_id: number) => reply(api.PUT("/api/me/crew", { body: { crew_id } })),
};

/** What follows when somebody is let in, or works in another crew: what was kept of others goes, other tabs follow. */
export function useLetIn(): (me: Me) => Promise<void> {
  const queries = useQueryClient();
  return async (me) => {
    await dropOthers(queries, ownerOf(me));
    tellOtherTabs(ownerOf(me));
    await takeAsNow(queries, keys.me, me);
  };
}
