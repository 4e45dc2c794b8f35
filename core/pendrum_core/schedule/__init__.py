"""Day patterns."""
