import type { components } from "./schema";

type Schemas = components["schemas"];

export type RunDocument = Schemas["PreviewIn"]["document"];
export type Step = RunDocument["steps"][number];
export type BendStep = Schemas["BendStep"];
export type OffsetStep = Schemas["OffsetStep"];
export type Written = string | number;
export type Plan = Schemas["Plan"];
export type PlannedPiece = Schemas["PlannedPiece"];
export type BenchBend = Schemas["BenchBend"];
export type PlannedMark = Schemas["PlannedMark"];
export type Picture = Schemas["Picture"];
export type PictureDimension = Schemas["PictureDimension"];
export type Problem = Schemas["Problem"];
export type Measure = Schemas["Measure"];
export type ShoeUsed = Schemas["ShoeUsed"];
export type Run = Schemas["RunOut"];
export type Job = Schemas["JobOut"];
export type Me = Schemas["Me"];
export type Shoe = Schemas["ShoeOut"];
export type Scrap = Schemas["ScrapOut"];
export type ScrapIn = Schemas["ScrapIn"];
export type LedgerEntry = Schemas["EntryOut"];
export type CutList = Schemas["CutList"];
export type ListedSource = Schemas["ListedSource"];
export type ListedCut = Schemas["ListedCut"];
export type Point = [number, number, number];
