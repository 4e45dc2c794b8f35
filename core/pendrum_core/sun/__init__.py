"""Sun position, clear sky, irradiance on planes."""
