"""Trees of ducts and pipes: what both have in common."""
