"""Snags: what the checks found."""
