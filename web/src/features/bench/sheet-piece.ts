import type { Sheet } from "@/api/types";

/** A sheet as a strip draws it, its bends along the pipe, as long as it is cut. */
export const asPiece = (sheet: Sheet) => ({ number: sheet.piece, length: sheet.cut, bends: sheet.bends });
