"""Air ducts."""
