"""How a number came about: trees made from the results' own fields, down to inputs and published rules."""
