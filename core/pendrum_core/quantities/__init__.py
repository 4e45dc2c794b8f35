"""Units, constants and names of the quantities that cross a border."""
