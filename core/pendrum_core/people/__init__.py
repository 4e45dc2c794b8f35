"""Heat and moisture of people."""
