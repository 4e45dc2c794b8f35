"""Frozen inputs of a calculation: effective values only, inheritance already resolved."""
