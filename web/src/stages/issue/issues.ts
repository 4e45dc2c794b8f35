import type { Schemas } from "@/api/client";

/** A report that was issued. */
export type Issued = Schemas["IssueOut"];

export const FILE_NAMES: Record<string, string> = {
  "report.pdf": "PDF",
  "tables.xlsx": "XLSX",
  "tables-csv.zip": "CSV",
  "rooms.xml": "Rooms, gbXML",
  "project.json": "Project, JSON",
  "results.json": "Results, JSON",
};
