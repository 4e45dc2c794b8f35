/** A report that was issued. */
export interface Issued {
  id: string;
  number: number;
  at: string;
  author: string;
  purpose: string;
  remarks: string;
  option: string;
  version: number;
  asked: { parts: string[]; system: string; page: string };
  files: Record<string, { sha256: string; bytes: number }>;
}

export const FILE_NAMES: Record<string, string> = {
  "report.pdf": "PDF",
  "tables.xlsx": "XLSX",
  "tables-csv.zip": "CSV",
  "rooms.xml": "Rooms, gbXML",
  "project.json": "Project, JSON",
  "results.json": "Results, JSON",
};
