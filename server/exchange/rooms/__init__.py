"""Rooms in and out of files: tables (XLSX, CSV), gbXML and IFC. A file first becomes incoming rooms, then a difference."""
