import { useState } from "react";
import type { ApiError } from "@/api/client";
import { useChangeNames } from "@/api/people";
import type { Me } from "@/api/types";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";

const namesOf = ({ username, first, last, email }: Me) => ({ username, first, last, email });

/** The name that others see, the one to sign in by, and an e-mail address. */
export function MyNames({ me }: { me: Me }) {
  const [names, setNames] = useState(namesOf(me));
  const [password, setPassword] = useState("");
  const change = useChangeNames();
  const error = change.error as ApiError | null;
  const changed = JSON.stringify(names) !== JSON.stringify(namesOf(me));
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
        change.mutate({ ...names, password });
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
      <Field
        label="E-mail, for a forgotten password (if you like)"
        type="email"
        autoComplete="email"
        {...put("email")}
      />
      {names.email !== me.email && (
        <Field
          label="Your password, as a link to a new one goes there"
          type="password"
          autoComplete="current-password"
          value={password}
          wrong={error?.places.password}
          onChange={(event) => setPassword(event.target.value)}
        />
      )}
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
