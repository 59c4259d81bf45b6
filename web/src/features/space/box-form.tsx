import { type FormEvent, useState } from "react";
import { ApiError } from "@/api/client";
import { usePlaceBox } from "@/api/space";
import type { BoxOut, Place, Tape } from "@/api/types";
import { Button } from "@/ui/button";
import { Field } from "@/ui/field";
import { Notice } from "@/ui/notice";
import { Segments } from "@/ui/segments";
import { t } from "@/words/space";
import { asSigned, boxAsTyped, type Typed } from "./placing";

export interface PipeAtBox {
  run: string;
  end: "A" | "B";
  name: string;
}

interface Props {
  jobId: number;
  name: string;
  /** As it was placed; none: for the first time. */
  box: BoxOut | undefined;
  pipes: readonly PipeAtBox[];
  tape: Tape;
  feet: boolean;
  onDone: () => void;
}

const WALLS = [
  { value: "ahead" as const, label: t("wall.ahead") },
  { value: "left" as const, label: t("wall.left") },
  { value: "right" as const, label: t("wall.right") },
  { value: "behind" as const, label: t("wall.behind") },
];
const FIGURES = [
  { figure: "along" as const, label: t("figure.along") },
  { figure: "up" as const, label: t("figure.up") },
  { figure: "out" as const, label: t("figure.out") },
];
const SIZES = [
  { figure: "wide" as const, label: t("size.wide") },
  { figure: "high" as const, label: t("size.high") },
  { figure: "deep" as const, label: t("size.deep") },
];

/** Where a box is, from the datum, how large it is, and which knockout each pipe takes. */
export function BoxForm({ jobId, name, box, pipes, tape, feet, onDone }: Props) {
  const place = usePlaceBox(jobId);
  const [typed, setTyped] = useState<Typed>(() => boxAsTyped(box?.place, tape));
  const [was, setWas] = useState(box?.version ?? null);
  const set = (change: Partial<Typed>) => setTyped((before) => ({ ...before, ...change }));
  const error = place.error instanceof ApiError ? place.error : null;
  const theirs = error?.status === 409 ? (error.theirs as BoxOut | null) : undefined;
  const wrong = (field: string) => error?.places[`place.${field}`];

  function submit(event: FormEvent) {
    event.preventDefault();
    const knockouts = pipes.flatMap(({ run, end }) => {
      const aside = typed.asides[`${run} ${end}`]?.trim();
      return aside ? [{ run, end, aside: asSigned(aside) }] : [];
    });
    const { along, up, out, wall, wide, high, deep } = typed;
    const written: Place = {
      name,
      tape: box?.place.tape ?? tape,
      feet: box?.place.feet ?? feet,
      along: asSigned(along),
      up: asSigned(up),
      out: asSigned(out || "0"),
      wall,
      wide: wide || null,
      high: high || null,
      deep: deep || null,
      knockouts,
    };
    place.mutate({ place: written, was }, { onSuccess: onDone });
  }

  return (
    <form onSubmit={submit} className="mt-2 flex flex-col gap-3 rounded-md border border-line bg-sheet p-3">
      <div className="grid grid-cols-3 gap-2">
        {FIGURES.map(({ figure, label }) => (
          <Field
            key={figure}
            label={label}
            value={typed[figure]}
            inputMode="text"
            autoComplete="off"
            wrong={wrong(figure)}
            onChange={(event) => set({ [figure]: event.target.value })}
          />
        ))}
      </div>
      <p className="text-[15px] text-soft">{t("figure.minus")}</p>
      <div>
        <p className="mb-1 text-[15px] font-semibold">{t("wall.title")}</p>
        <Segments
          label={t("wall.title")}
          value={typed.wall}
          choices={WALLS}
          onChoose={(wall) => set({ wall })}
        />
      </div>
      <div className="grid grid-cols-3 gap-2">
        {SIZES.map(({ figure, label }) => (
          <Field
            key={figure}
            label={label}
            value={typed[figure]}
            autoComplete="off"
            wrong={wrong(figure)}
            onChange={(event) => set({ [figure]: event.target.value })}
          />
        ))}
      </div>
      {pipes.length > 0 && (
        <fieldset className="flex flex-col gap-1.5">
          <legend className="mb-1 text-[15px] font-semibold">{t("knockout.title")}</legend>
          {pipes.map((pipe) => (
            <Field
              key={`${pipe.run} ${pipe.end}`}
              label={pipe.name}
              placeholder={t("knockout.middle")}
              value={typed.asides[`${pipe.run} ${pipe.end}`] ?? ""}
              autoComplete="off"
              onChange={(event) =>
                set({ asides: { ...typed.asides, [`${pipe.run} ${pipe.end}`]: event.target.value } })
              }
            />
          ))}
          <p className="text-[15px] text-soft">{t("knockout.minus")}</p>
        </fieldset>
      )}
      {error && theirs === undefined && <Notice severity="stop">{error.message}</Notice>}
      {theirs !== undefined && error && (
        <Notice severity="caution">
          {error.message} {theirs && <strong className="tape">{placeInWords(theirs.place)}</strong>}
          <span className="mt-2 flex flex-wrap gap-2">
            <Button
              type="button"
              onClick={() => {
                setTyped(boxAsTyped(theirs?.place, tape));
                setWas(theirs?.version ?? null);
                place.reset();
              }}
            >
              {t("box.take_theirs")}
            </Button>
            <Button
              type="button"
              onClick={() => {
                setWas(theirs?.version ?? null);
                place.reset();
              }}
            >
              {t("box.keep_mine")}
            </Button>
          </span>
        </Notice>
      )}
      <span className="flex gap-2">
        <Button
          type="submit"
          look="main"
          disabled={place.isPending || !typed.along.trim() || !typed.up.trim()}
        >
          {t("box.place_it")}
        </Button>
        <Button type="button" look="quiet" onClick={onDone}>
          {t("box.leave")}
        </Button>
      </span>
    </form>
  );
}

/** A box's place as it was typed. */
export const placeInWords = ({ along, up, out }: Place): string =>
  t("box.at", { along: String(along), up: String(up), out: String(out ?? "0") });
