"""Prices of ducts by their size, without the weight that was a part of it."""

from django.db import migrations

from projects.earlier import without_weight


def sizes_alone(apps, schema_editor):
    """A price of a size stands for that size whatever it weighs, in projects and in the layers of their options; the first one counts."""
    price = apps.get_model("projects", "Price")
    taken = set(price.objects.values_list("project_id", "item", "size"))
    for row in price.objects.all():
        size = without_weight(row.size)
        if size != row.size and (row.project_id, row.item, size) not in taken:
            taken.add((row.project_id, row.item, size))
            row.size = size
            row.save(update_fields=["size"])
    for option in apps.get_model("projects", "Project").objects.filter(base__isnull=False):
        before = str(option.layer)
        for entry in option.layer.get("price", {}).values():
            for fields in (entry.get("fields", {}), entry.get("was", {})):
                if "size" in fields:
                    fields["size"] = without_weight(fields["size"])
        if str(option.layer) != before:
            option.save(update_fields=["layer"])


class Migration(migrations.Migration):

    dependencies = [
        ('projects', '0058_terminal_fans'),
    ]

    operations = [
        migrations.RunPython(sizes_alone, migrations.RunPython.noop),
    ]
