"""Labels come out of a printer at the machine of whoever prints them: the server keeps none."""

from django.db import migrations


class Migration(migrations.Migration):
    """No labels any more."""

    dependencies = [("stock", "0003_reservation_of_job")]

    operations = [migrations.DeleteModel(name="Label")]
