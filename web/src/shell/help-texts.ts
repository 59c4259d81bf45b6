import { t } from "@/words/shell";
export interface HelpText {
  title: string;
  /** What is done here, and in which order. */
  says: string[];
  /** Where the work goes on. */
  next?: string;
}

interface HelpHere extends HelpText {
  view: string;
  at: RegExp;
}

/** What is done in each view, for a first day; the views of a run in the order of the work. */
const HELP: HelpHere[] = [
  {
    view: "jobs",
    at: /^\/$/,
    title: t("jobs"),
    says: [t("aJobHoldsTheRuns"), t("measureANewRunBegins")],
    next: t("openARun"),
  },
  {
    view: "layout",
    at: /^\/runs\/\d+\/layout/,
    title: t("layoutMeasureTheRun"),
    says: [t("goFromBoxATo"), t("theLineUnderThePicture"), t("otherWaysSumsShowsThe")],
    next: t("whenItCanBeBent"),
  },
  {
    view: "bench",
    at: /^\/runs\/\d+\/bench/,
    title: t("benchCutAndBendA"),
    says: [t("cutLayAllMarksFrom"), t("afterEachBendEnterWhat"), t("onceOpenedItWorksWithout")],
    next: t("stockPlansTheCuttingOf"),
  },
  {
    view: "stock",
    at: /^\/jobs\/\d+\/stock/,
    title: t("stockPlanTheCuttingOf"),
    says: [t("whatLiesOnTheRack"), t("reserveAndCutThisTakes")],
    next: t("whatWasBentStandsIn"),
  },
  {
    view: "log",
    at: /^\/log/,
    title: t("logWhatCameOfEach"),
    says: [t("everyBendAsPlannedAnd")],
  },
  {
    view: "shoes",
    at: /^\/shoes/,
    title: t("shoes"),
    says: [t("eachShoeBendsALittle"), t("untilThenTypicalFiguresAre")],
  },
  {
    view: "floor",
    at: /^\/runs\/\d+\/floor/,
    title: t("aRackOnTheFloor"),
    says: [t("layTheSticksSideBy"), t("bendStageByStageAll")],
  },
  {
    view: "people",
    at: /^\/people/,
    title: t("peopleOfTheCrew"),
    says: [t("whoeverLeadsTheCrewInvites")],
  },
  {
    view: "limits",
    at: /^\/limits/,
    title: t("limitsOfTheCrew"),
    says: [t("theseAreCommonDefaultsYour")],
  },
];

/** The help of an address, if there is any. */
export const helpAt = (path: string): HelpHere | undefined => HELP.find((one) => one.at.test(path));
