import type { FileOf } from "@/api/files";
import type { ExportIn } from "@/api/types";
import { t } from "@/words/files";

export interface Choice {
  to: ExportIn["to"];
  part: string;
  says: string;
  more: string;
}

interface Group {
  title: string;
  onPaper?: true;
  choices: Partial<Record<FileOf, Choice[]>>;
}

const of = (to: Choice["to"], part: string, says: string, more: string): Choice => ({ to, part, says, more });

const DRAWINGS = [
  of("dxf", "model", t("dxf.model"), t("dxf.model.says")),
  of("ifc", "model", t("ifc.model"), t("ifc.model.says")),
  of("gltf", "model", t("gltf.model"), t("gltf.model.says")),
  of("svg", "sheet", t("svg.sheet"), t("svg.sheet.says")),
];
const TABLES = [
  of("csv", "bends", t("csv.bends"), t("csv.bends.says")),
  of("csv", "marks", t("csv.marks"), t("csv.marks.says")),
];

/** What people take away, by what they do with it. */
export const GROUPS: Group[] = [
  {
    title: t("group.paper"),
    onPaper: true,
    choices: {
      run: [
        of("pdf", "sheet", t("pdf.sheet"), t("pdf.sheet.says")),
        of("pdf", "cards", t("pdf.cards"), t("pdf.cards.says")),
        of("pdf", "floor", t("pdf.floor"), t("pdf.floor.says")),
      ],
      job: [
        of("pdf", "job", t("pdf.job"), t("pdf.job.says")),
        of("pdf", "cuts", t("pdf.cuts"), t("pdf.cuts.says")),
        of("pdf", "bring", t("pdf.bring"), t("pdf.bring.says")),
        of("pdf", "sheets", t("pdf.sheets"), t("pdf.sheets.says")),
        of("pdf", "cards", t("pdf.job_cards"), t("pdf.job_cards.says")),
      ],
    },
  },
  { title: t("group.drawing"), choices: { run: DRAWINGS, job: DRAWINGS } },
  { title: t("group.table"), choices: { run: TABLES, job: TABLES } },
  {
    title: t("group.data"),
    choices: {
      run: [of("json", "document", t("json.document"), t("json.document.says"))],
      job: [
        of("zip", "all", t("zip.job"), t("zip.job.says")),
        of("json", "job", t("json.job"), t("json.job.says")),
      ],
      crew: [of("zip", "all", t("zip.crew"), t("zip.crew.says"))],
    },
  },
];
