import type { ButtonHTMLAttributes } from "react";

type Look = "plain" | "main" | "quiet";

const LOOKS: Record<Look, string> = {
  main: "bg-accent text-on-accent hover:opacity-90 px-4 font-semibold",
  plain: "border border-line bg-paper text-ink hover:border-ink px-3.5 font-medium",
  quiet: "text-soft hover:bg-well hover:text-ink px-1.5",
};

/** How something that is touched looks, a link to another page too. */
export const buttonLook = (look: Look, className = "") =>
  `inline-flex min-h-9 items-center justify-center gap-1.5 rounded-md text-base whitespace-nowrap transition-colors disabled:opacity-40 ${LOOKS[look]} ${className}`;

export function Button({
  look = "plain",
  className = "",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: Look }) {
  return <button type="button" className={buttonLook(look, className)} {...rest} />;
}
