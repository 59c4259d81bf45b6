import type { ApiError } from "@/api/client";
import { Field } from "@/ui/field";

export interface JobWritten {
  name: string;
  place: string;
}

export const trimmed = ({ name, place }: JobWritten): JobWritten => ({
  name: name.trim(),
  place: place.trim(),
});

interface Props {
  /** How its name and its place are asked for. */
  labels: [name: string, place: string];
  job: JobWritten;
  onChange: (job: JobWritten) => void;
  error: ApiError | null;
}

/** What a job is called and where it is. */
export function JobFields({ labels, job, onChange, error }: Props) {
  return (
    <>
      <Field
        label={labels[0]}
        className="w-64"
        maxLength={80}
        value={job.name}
        onChange={(event) => onChange({ ...job, name: event.target.value })}
        wrong={error?.places["given.name"] ?? error?.message}
      />
      <Field
        label={labels[1]}
        className="w-72"
        maxLength={120}
        value={job.place}
        onChange={(event) => onChange({ ...job, place: event.target.value })}
      />
    </>
  );
}
