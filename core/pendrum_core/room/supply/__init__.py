"""How rooms answer to supply air: what it is worked out with."""
