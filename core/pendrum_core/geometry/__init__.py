"""Room outlines."""
