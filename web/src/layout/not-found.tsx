import { Link, useLocation } from "react-router";
import { Shell } from "./shell";

/** An address that leads nowhere: says which, and the ways on. */
export function NotFound() {
  const { pathname } = useLocation();
  return (
    <Shell title="No such page">
      <main className="mx-auto w-full max-w-xl px-4 py-16">
        <h1 className="text-3xl font-bold">There is nothing at this address</h1>
        <p className="mt-3 text-lg break-all text-soft">{pathname}</p>
        <p className="mt-3 text-lg">
          It may have been removed, or mistyped.{" "}
          <Link to="/" className="font-semibold underline">
            All jobs
          </Link>
        </p>
      </main>
    </Shell>
  );
}
