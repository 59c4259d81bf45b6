import { useState } from "react";
import { useNavigate } from "react-router";
import { useAssign } from "@/api/about";
import { usePeople } from "@/api/people";
import { useCopyRun, useJobs } from "@/api/queries";
import { Button } from "@/ui/button";
import { MoreIcon } from "@/ui/icons";
import { Menu, MenuItem } from "@/ui/menu";
import { Notice } from "@/ui/notice";
import type { RunLine } from "./rack-order";

interface Props {
  run: Pick<RunLine, "id" | "name" | "assigned">;
  jobId: number;
}

/** What can be made of a run: another like it, its mirror image, the same in another job; and for whom it is. */
export function RunMenu({ run, jobId }: Props) {
  const copy = useCopyRun();
  const assign = useAssign(run.id);
  const people = usePeople().data?.members ?? [];
  const navigate = useNavigate();
  const jobs = useJobs().data ?? [];
  const [asked, setAsked] = useState(false);
  const make = (mirrored: boolean, job_id?: number) =>
    copy.mutate(
      { id: run.id, mirrored, ...(job_id === undefined ? {} : { job_id }) },
      { onSuccess: (made) => navigate(`/runs/${made.id}/walk`) },
    );
  return (
    <>
      <Menu
        align="end"
        trigger={
          <Button look="quiet" aria-label={`${run.name || "The run"}: more`} disabled={copy.isPending}>
            <MoreIcon />
          </Button>
        }
      >
        <MenuItem onSelect={() => make(false)}>Another like it</MenuItem>
        <MenuItem onSelect={() => make(true)}>Its mirror image, right for left</MenuItem>
        {people
          .filter((one) => one.role !== "viewer" && one.user_id !== run.assigned?.id)
          .map((one) => (
            <MenuItem key={one.id} onSelect={() => assign.mutate(one.id)}>
              {one.me ? "It is for me" : `It is for ${one.name}`}
            </MenuItem>
          ))}
        {run.assigned && <MenuItem onSelect={() => assign.mutate(null)}>It is for whoever has time</MenuItem>}
        {jobs.length > 1 && <MenuItem onSelect={() => setAsked(true)}>The same in another job …</MenuItem>}
      </Menu>
      {asked && (
        <span className="flex basis-full flex-wrap gap-2 px-4 pb-2">
          {jobs
            .filter((job) => job.id !== jobId)
            .map((job) => (
              <Button key={job.id} onClick={() => make(false, job.id)}>
                Into {job.name}
              </Button>
            ))}
          <Button look="quiet" onClick={() => setAsked(false)}>
            Nowhere
          </Button>
        </span>
      )}
      {assign.error && <Notice severity="stop">{assign.error.message}</Notice>}
      {copy.error && <Notice severity="stop">{copy.error.message}</Notice>}
    </>
  );
}
