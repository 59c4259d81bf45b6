import django.db.models.deletion
from django.db import migrations, models


def without_a_job(apps, schema_editor):
    """Reservations whose job was deleted hold their scraps for nobody."""
    reservation, job = apps.get_model("stock", "Reservation"), apps.get_model("jobs", "Job")
    reservation.objects.exclude(job_number__in=job.objects.values("pk")).delete()
    reservation.objects.update(job_id=models.F("job_number"))


class Migration(migrations.Migration):
    dependencies = [
        ("jobs", "0004_bin"),
        ("stock", "0002_places_ends_reservations_labels"),
    ]

    operations = [
        migrations.RenameField("reservation", "job", "job_number"),
        migrations.AddField(
            "reservation",
            "job",
            models.ForeignKey(
                null=True, on_delete=django.db.models.deletion.CASCADE, related_name="reservations", to="jobs.job"
            ),
        ),
        migrations.RunPython(without_a_job, migrations.RunPython.noop),
        migrations.AlterField(
            "reservation",
            "job",
            models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="reservations", to="jobs.job"),
        ),
        migrations.RemoveField("reservation", "job_number"),
        migrations.RemoveField("reservation", "job_name"),
    ]
