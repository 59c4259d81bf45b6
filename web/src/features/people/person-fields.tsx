import type { NewPerson } from "@/api/types";
import { Field } from "@/ui/field";
import { t } from "@/words/people";

export const NOBODY: NewPerson = { username: "", first: "", last: "", password: "" };

interface Props {
  person: NewPerson;
  wrong: Record<string, string>;
  onChange: (person: NewPerson) => void;
}

/** What a new person is asked for. */
export function PersonFields({ person, wrong, onChange }: Props) {
  const put = (key: keyof NewPerson) => ({
    value: person[key],
    wrong: wrong[key],
    onChange: (event: { target: { value: string } }) => onChange({ ...person, [key]: event.target.value }),
  });
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <Field label={t("person.first_name")} autoComplete="given-name" {...put("first")} />
        <Field label={t("person.last_name")} autoComplete="family-name" {...put("last")} />
      </div>
      <Field
        label={t("person.sign_in_name")}
        autoComplete="username"
        autoCapitalize="none"
        required
        {...put("username")}
      />
      <Field
        label={t("password.first")}
        type="password"
        autoComplete="new-password"
        required
        {...put("password")}
      />
    </>
  );
}
