from django.db import migrations, models
from django.db.models import OuterRef, Subquery


def of_their_bars(apps, schema_editor):
    cut, bar = (apps.get_model("cutting", name) for name in ("Cut", "Bar"))
    cut.objects.update(kerf=Subquery(bar.objects.filter(pk=OuterRef("bar_id")).values("kerf")[:1]))


class Migration(migrations.Migration):
    dependencies = [("cutting", "0002_picks")]

    operations = [
        migrations.AddField("cut", "kerf", models.PositiveSmallIntegerField(default=1), preserve_default=False),
        migrations.RunPython(of_their_bars, migrations.RunPython.noop),
        migrations.AlterField(
            "cut",
            "kerf",
            models.PositiveSmallIntegerField(
                help_text="What the saw takes beside it, by the terms it was reserved by."
            ),
        ),
        migrations.RemoveField("bar", "kerf"),
    ]
