"""Water circuits: properties, emitters, pipes, pumps."""
