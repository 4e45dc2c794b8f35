"""U-values of assemblies, for files."""

from calculations.inputs.fabric import assembly_layers
from calculations.lookups import Lookups
from pendrum_core.model.fabric import films_m2k_w, total_resistance
from projects.rows import Document, Row


def assembly_u_value(document: Document, assembly: Row) -> float | None:
    """U-value with the standard's films, ISO 6946 [W/m2 K]; None where its layers are not complete."""
    try:
        layers = assembly_layers(Lookups(document), assembly)
    except ValueError:
        return None
    return 1.0 / (total_resistance(layers) + sum(films_m2k_w(assembly["element"])))
