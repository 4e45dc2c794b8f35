"""Room heat balance of a repeating design day, solved in the frequency domain."""
