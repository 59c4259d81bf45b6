import { type ReactNode, useState } from "react";
import { ApiError } from "@/api/client";
import { useCalibrate, useTestBends } from "@/api/shoe-queries";
import type { CalibrationFound, CalibrationIn, Shoe } from "@/api/types";
import { Button } from "@/ui/button";
import { PlusIcon } from "@/ui/icons";
import { Notice } from "@/ui/notice";
import { TapeField } from "@/ui/tape-field";
import { t } from "@/words/shoes";

interface Test {
  length: string;
  mark: string;
  leg: string;
  other_leg: string;
}
interface Dial {
  dial: string;
  angle: string;
}

const NEW_TEST: Test = { length: "", mark: "7", leg: "", other_leg: "" };
const NEW_DIAL: Dial = { dial: "45", angle: "" };

/** A test bend in scrap, step by step, and what follows from it. */
export function Calibrate({ shoe, onDone }: { shoe: Shoe; onDone: () => void }) {
  const [tests, setTests] = useState([NEW_TEST]);
  const [dials, setDials] = useState([NEW_DIAL]);
  const given = givenBy(tests, dials);
  const found = useTestBends(shoe.id, given);
  const take = useCalibrate(shoe.id);
  const setTest = (at: number, part: Partial<Test>) =>
    setTests(tests.map((one, i) => (i === at ? { ...one, ...part } : one)));
  const doubts = (given && !found.error && found.data?.doubts) || [];
  /** Of the tests that are whole, as the server counts them. */
  const exchange = (at: number) =>
    setTests(
      tests.map((one) =>
        one === tests.filter(isWhole)[at] ? { ...one, leg: one.other_leg, other_leg: one.leg } : one,
      ),
    );
  const setDial = (at: number, part: Partial<Dial>) =>
    setDials(dials.map((one, i) => (i === at ? { ...one, ...part } : one)));
  return (
    <section
      aria-label={t("calibrate.title", { shoe: shoe.name })}
      className="border-t border-line px-4 py-4 text-[17px]"
    >
      <ol className="flex list-decimal flex-col gap-2 pl-6 leading-9">
        {tests.map((test, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a test bend is what stands at its place
          <li key={at}>
            <Steps>
              {t("test.cut", { trade_size: shoe.trade_size, material: shoe.material })}{" "}
              <TapeField
                label={t("test.length", { at: at + 1 })}
                value={test.length}
                onChange={(length) => setTest(at, { length })}
              />
              {t("test.pencil")}{" "}
              <TapeField
                label={t("test.mark", { at: at + 1 })}
                value={test.mark}
                onChange={(mark) => setTest(at, { mark })}
              />{" "}
              {t("test.bend")}{" "}
              <TapeField
                label={t("test.leg", { at: at + 1 })}
                value={test.leg}
                onChange={(leg) => setTest(at, { leg })}
              />
              {t("test.other")}{" "}
              <TapeField
                label={t("test.other_leg", { at: at + 1 })}
                value={test.other_leg}
                onChange={(other_leg) => setTest(at, { other_leg })}
              />
              {t("test.outside")}
            </Steps>
          </li>
        ))}
        {dials.map((dial, at) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: as above
          <li key={`dial-${at}`}>
            <Steps>
              {t("dial.bend")}{" "}
              <TapeField
                label={t("dial.shown", { at: at + 1 })}
                unit="°"
                value={dial.dial}
                onChange={(shown) => setDial(at, { dial: shown })}
              />
              {t("dial.let_go")}{" "}
              <TapeField
                label={t("dial.finder", { at: at + 1 })}
                unit="°"
                value={dial.angle}
                onChange={(angle) => setDial(at, { angle })}
              />
              {t("dial.optional")}
            </Steps>
          </li>
        ))}
      </ol>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => setTests([...tests, NEW_TEST])}>
          <PlusIcon /> {t("test.another")}
        </Button>
        <Button onClick={() => setDials([...dials, { ...NEW_DIAL, dial: "90" }])}>
          <PlusIcon /> {t("dial.another")}
        </Button>
      </div>
      <div className="mt-3">
        {given === null && <p className="text-soft">{t("found.not_yet")}</p>}
        {given && found.error && <Notice severity="stop">{wordsOf(found.error)}</Notice>}
        {given && found.data && !found.error && <Found found={found.data} shoe={shoe} />}
        {doubts.map((doubt) => (
          <Notice key={doubt.says} severity="caution">
            {doubt.says}{" "}
            {doubt.test !== null && (
              <Button onClick={() => exchange(doubt.test ?? 0)}>{t("test.swap_legs")}</Button>
            )}
          </Notice>
        ))}
        {take.error && <Notice severity="stop">{wordsOf(take.error)}</Notice>}
      </div>
      <div className="mt-3 flex flex-wrap gap-2">
        <Button
          look={doubts.length ? "plain" : "main"}
          className="min-h-10"
          disabled={given === null || !found.data || Boolean(found.error) || take.isPending}
          onClick={() => given && take.mutate(given, { onSuccess: onDone })}
        >
          {doubts.length ? t("form.use_anyway") : t("found.use")}
        </Button>
        <Button className="min-h-10" onClick={onDone}>
          {t("cancel")}
        </Button>
      </div>
    </section>
  );
}

function Steps({ children }: { children: ReactNode }) {
  return <span>{children}</span>;
}

function wordsOf(error: Error): string {
  const places = error instanceof ApiError ? Object.entries(error.places) : [];
  return [error.message, ...places.map(([place, says]) => `${wordsOfPlace(place)}: ${says}.`)].join(" ");
}

/** “given.tests.0.leg” as the form calls it. */
function wordsOfPlace(place: string): string {
  const [, , at, key] = place.split(".");
  return key ? t("test.label", { at: Number(at) + 1, key: key.replace("_", " ") }) : place;
}

const isWhole = (test: Test) => Object.values(test).every((text) => text.trim());

/** What is filled in so far, or null while it is not enough for anything. */
function givenBy(tests: Test[], dials: Dial[]): CalibrationIn | null {
  const whole = tests.filter(isWhole);
  const read = dials
    .filter((dial) => dial.angle.trim() && dial.dial.trim())
    .map((dial) => ({ dial: Number(dial.dial), angle: Number(dial.angle) }));
  return whole.length + read.length ? { tests: whole, dials: read } : null;
}

const DIGITS = 3;

function Found({ found, shoe }: { found: CalibrationFound; shoe: Shoe }) {
  const { used } = shoe;
  return (
    <div className="tape rounded-md border border-line bg-sheet px-4 py-3">
      {found.tests > 0 && (
        <p>
          {t("found.deduct")} <strong className="text-2xl">{found.shoe.deduct.reads}</strong>
          <span className="text-soft"> {t("found.now", { reading: used.deduct.reads })}</span>
          {t("found.gain")} <strong className="text-2xl">{found.shoe.gain.reads}</strong>
          <span className="text-soft"> {t("found.now", { reading: used.gain.reads })}</span>
          {found.tests > 1 &&
            t("found.spread", {
              tests: found.tests,
              deduct_spread: found.deduct_spread.toFixed(DIGITS),
              gain_spread: found.gain_spread.toFixed(DIGITS),
            })}
          {t("found.radius", { radius: found.shoe.radius.toFixed(DIGITS) })}{" "}
          {found.shoe.references.star?.toFixed(DIGITS)}
          {t("found.notch")} {found.shoe.references.notch?.toFixed(DIGITS)} {t("found.from_arrow")}
        </p>
      )}
      {found.dials > 0 && (
        <p>
          {t("found.dial", {
            dial_factor: found.dial_factor.toFixed(DIGITS),
            sign: found.dial_constant < 0 ? "−" : "+",
            dial_constant: Math.abs(found.dial_constant).toFixed(1),
          })}
          {found.dials > 2 && t("found.dial_spread", { dial_spread: found.dial_spread.toFixed(1) })}.
        </p>
      )}
    </div>
  );
}
