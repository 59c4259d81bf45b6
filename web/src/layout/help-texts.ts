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
    title: "Jobs",
    says: [
      "A job holds the runs of one place; a run is one pipe from box to box.",
      "“Measure a new run” begins one, or open one to see how it is done.",
    ],
    next: "Open a run.",
  },
  {
    view: "walk",
    at: /^\/runs\/\d+\/walk/,
    title: "Walk: measure the run",
    says: [
      "Go from box A to box B and write down what you meet, in that order. Type each figure as the tape reads it: 71 1/2. Enter goes to the next one.",
      "The line under the picture says whether it can be bent; below it every stick has its marks.",
      "“Other ways, sums” shows the arithmetic of a step. Nothing has to be saved: it is saved as you type.",
    ],
    next: "When it can be bent, go to Bench.",
  },
  {
    view: "bench",
    at: /^\/runs\/\d+\/bench/,
    title: "Bench: cut and bend a stick",
    says: [
      "Cut, lay all marks from end A, then one screen for each bend, in order: mark, reference, hook, how to turn the pipe, how far.",
      "After each bend enter what the finder reads. Where it is off it says what to do before the pipe is scrap.",
      "Once opened it works without a network; what you enter is sent later.",
    ],
    next: "Stock plans the cutting of all runs together.",
  },
  {
    view: "stock",
    at: /^\/jobs\/\d+\/stock/,
    title: "Stock: plan the cutting of a job",
    says: [
      "What lies on the rack is used first. Couplings move to where a scrap ends, as far as the rules let them.",
      "“Reserve and cut this” takes the plan: scraps are reserved, and the couplings go into the runs.",
    ],
    next: "What was bent stands in the Log.",
  },
  {
    view: "log",
    at: /^\/log/,
    title: "Log: what came of each bend",
    says: ["Every bend as planned and as read. From three bends on it proposes better figures for the shoe."],
  },
  {
    view: "shoes",
    at: /^\/shoes/,
    title: "Shoes",
    says: [
      "Each shoe bends a little otherwise. Calibrate it once: a 90 in scrap, two tape readings, some dial angles.",
      "Until then typical figures are used, and every card made with them says so.",
    ],
  },
  {
    view: "floor",
    at: /^\/runs\/\d+\/floor/,
    title: "A rack on the floor",
    says: [
      "Lay the sticks side by side in this order, square one line across, mark all of them from it.",
      "Bend stage by stage: all with one setting of the shoe, then the next. Tick each as it is done.",
    ],
  },
  {
    view: "people",
    at: /^\/people/,
    title: "People of the crew",
    says: ["Whoever leads the crew invites others by a link. What each may do stands below."],
  },
  {
    view: "limits",
    at: /^\/limits/,
    title: "Limits of the crew",
    says: [
      "These are common defaults. Your local code decides: write its figures here, and every run is held to them.",
    ],
  },
];

/** The help of an address, if there is any. */
export const helpAt = (path: string): HelpHere | undefined => HELP.find((one) => one.at.test(path));
