import { useState } from "react";
import type { ApiError } from "@/api/client";
import { useChangeNames } from "@/api/people";
import type { Me } from "@/api/types";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";

/** The name that others see, and the one to sign in by. */
export function MyNames({ me }: { me: Me }) {
  const [names, setNames] = useState({ username: me.username, first: me.first, last: me.last });
  const change = useChangeNames();
  const error = change.error as ApiError | null;
  const changed = names.username !== me.username || names.first !== me.first || names.last !== me.last;
  const put = (key: keyof typeof names) => ({
    value: names[key],
    wrong: error?.places[key],
    onChange: (event: { target: { value: string } }) => setNames({ ...names, [key]: event.target.value }),
  });
  return (
    <form
      aria-labelledby="names"
      className="mt-6 flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        change.mutate(names);
      }}
    >
      <h2 id="names" className="text-xl font-bold">
        Name
      </h2>
      <Field label="First name" autoComplete="given-name" {...put("first")} />
      <Field label="Last name" autoComplete="family-name" {...put("last")} />
      <Field
        label="Name to sign in by"
        autoComplete="username"
        autoCapitalize="none"
        required
        {...put("username")}
      />
      {error && <Notice severity="stop">{error.message}</Notice>}
      <Button
        type="submit"
        look="main"
        className="min-h-11 self-start"
        disabled={!changed || change.isPending}
      >
        Change the name
      </Button>
      {change.isSuccess && !changed && <span role="status">Changed.</span>}
    </form>
  );
}
