"""Design days of rooms: loads or temperatures at every step, and what they are made of by source."""
