import { useAbout } from "@/api/about";
import { useWork } from "@/features/layout/run-context";
import { Notice } from "@/ui/notice";
import { ForWhom } from "./for-whom";
import { NoteOfRun } from "./note-of-run";
import { Photos } from "./photos";

/** What is to be known of a run besides its measures: a note, for whom it is, photos of where it goes. */
export function AboutPanel() {
  const { run, mayWrite } = useWork();
  const about = useAbout(run.id);
  if (about.error) return <Notice severity="stop">{about.error.message}</Notice>;
  if (!about.data) return null;
  return (
    <div className="flex flex-col gap-5 p-3">
      <NoteOfRun runId={run.id} kept={about.data.note} mayWrite={mayWrite} />
      <ForWhom runId={run.id} assigned={about.data.assigned} mayWrite={mayWrite} />
      <Photos runId={run.id} photos={about.data.photos} mayWrite={mayWrite} />
    </div>
  );
}
