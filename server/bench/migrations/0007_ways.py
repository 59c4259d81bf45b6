from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("bench", "0006_fit_checks")]

    operations = [
        migrations.AlterField(model_name="bendmade", name="where", field=models.CharField(max_length=8)),
    ]
