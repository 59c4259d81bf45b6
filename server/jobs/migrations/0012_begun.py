import re
from collections.abc import Iterator

from django.db import migrations, models


def as_numbers(progress: str) -> Iterator[dict[str, object]]:
    """What was told in words, such as “1 of 2 cut, 3 of 4 bends”."""
    for done, of, what in re.findall(r"(\d+) of (\d+) (cut|bends|fitted)", progress):
        yield {"what": what, "done": int(done), "of": int(of)}


def carry_over(apps, schema_editor):  # type: ignore[no-untyped-def]
    for run in apps.get_model("jobs", "Run").objects.exclude(progress="").iterator():
        run.begun = list(as_numbers(run.progress))
        run.save(update_fields=["begun"])


class Migration(migrations.Migration):
    dependencies = [("jobs", "0011_shared")]

    operations = [
        migrations.AddField(
            model_name="run",
            name="begun",
            field=models.JSONField(
                default=list, help_text="What is begun but not done: what, how many are, of how many."
            ),
        ),
        migrations.RunPython(carry_over, migrations.RunPython.noop),
        migrations.RemoveField(model_name="run", name="progress"),
    ]
