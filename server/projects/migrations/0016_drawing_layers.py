"""Lines under the plan keep the layer that each is on."""

import json
from typing import Any

from django.db import migrations, models


def by_layer(apps: Any, schema_editor: Any) -> None:
    drawings = apps.get_model("projects", "LevelDrawing")
    for drawing in drawings.objects.filter(media_type="application/x-pendrum-lines"):
        lines = json.loads(bytes(drawing.data))
        drawing.data = json.dumps([{"layer": "0", "lines": lines}]).encode()
        drawing.layers = ["0"]
        drawing.save(update_fields=["data", "layers"])


class Migration(migrations.Migration):
    dependencies = [("projects", "0015_drawings_stay")]

    operations = [
        migrations.AddField("leveldrawing", "layers", models.JSONField(default=list)),
        migrations.AddField("leveldrawing", "hidden_layers", models.JSONField(default=list)),
        migrations.RunPython(by_layer, migrations.RunPython.noop),
    ]
