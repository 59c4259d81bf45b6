import type { MaybeOptionalInit } from "openapi-fetch";
import type { paths } from "./schema";

type Method = "get" | "put" | "post" | "delete";
type WithMethod<M extends Method> = {
  [P in keyof paths]: paths[P] extends Record<M, object> ? P : never;
}[keyof paths];

/** What an operation answers where all went well; of one that answers nothing: undefined. */
type Answered<Operation> = Operation extends { responses: infer Responses }
  ? {
      [Status in keyof Responses & (200 | 201 | 204)]: Responses[Status] extends {
        content: { "application/json": infer Body };
      }
        ? Body
        : undefined;
    }[keyof Responses & (200 | 201 | 204)]
  : never;

export interface Answer<Body> {
  data?: Body;
  error?: unknown;
  response: Response;
}

type Call<M extends Method> = <P extends WithMethod<M>, Init extends MaybeOptionalInit<paths[P], M>>(
  url: P,
  ...init: undefined extends Init ? [init?: Init] : [init: Init]
) => Promise<Answer<Answered<paths[P][M]>>>;

/** The client's calls, with answers as the schema has them: the library's own types make lists of its tuples. */
export interface TypedCalls {
  GET: Call<"get">;
  PUT: Call<"put">;
  POST: Call<"post">;
  DELETE: Call<"delete">;
}
