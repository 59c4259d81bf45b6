import type { Role } from "@/api/types";

/** What a role is, in a word or two. */
export const ROLES: Record<Role, string> = { lead: "lead", bender: "bender", viewer: "viewer" };

export const ROLE_CHOICES = (Object.keys(ROLES) as Role[]).map((role) => ({
  value: role,
  label: ROLES[role],
}));
