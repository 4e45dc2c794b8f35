"""Definition side: year plans, ground, shading, blinds, bases of gains, weather.

Schedules of two patterns become year plans. Undo begins anew: older edits speak of fields that are gone.
"""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models




def plans_from_patterns(apps, editor):
    """Weekday and weekend patterns become a plan with a rule for Saturday and Sunday."""
    for schedule in apps.get_model("projects", "Schedule").objects.all():
        schedule.patterns = [{"id": "a", "name": "Weekday", "steps": schedule.weekday}]
        schedule.base = "a"
        schedule.rules = []
        if schedule.weekend != schedule.weekday:
            schedule.patterns.append({"id": "b", "name": "Weekend", "steps": schedule.weekend})
            schedule.rules = [{"start": "01-01", "end": "12-31", "days": "00000110", "pattern": "b"}]
        schedule.save()
    apps.get_model("projects", "JournalEntry").objects.all().delete()


class Migration(migrations.Migration):
    dependencies = [
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
        ("projects", "0001_initial"),
    ]

    operations = [
        migrations.RenameField("use", "people_per_m2", "people_value"),
        migrations.RenameField("use", "lights_w_m2", "lights_value"),
        migrations.RenameField("use", "equipment_w_m2", "equipment_value"),
        migrations.AddField(
            model_name='assembly',
            name='declared_u_value',
            field=models.FloatField(null=True),
        ),
        migrations.AddField(
            model_name='assembly',
            name='edge_resistance_m2k_w',
            field=models.FloatField(default=0.0),
        ),
        migrations.AddField(
            model_name='assembly',
            name='edge_vertical',
            field=models.BooleanField(default=False),
        ),
        migrations.AddField(
            model_name='assembly',
            name='edge_width_m',
            field=models.FloatField(default=0.0),
        ),
        migrations.AddField(
            model_name='assembly',
            name='extra_u_value',
            field=models.FloatField(default=0.0),
        ),
        migrations.AddField(
            model_name='assembly',
            name='glass_g_value',
            field=models.FloatField(default=0.6),
        ),
        migrations.AddField(
            model_name='assembly',
            name='glass_share',
            field=models.FloatField(default=0.0),
        ),
        migrations.AddField(
            model_name='assembly',
            name='ground_area_m2',
            field=models.FloatField(null=True),
        ),
        migrations.AddField(
            model_name='assembly',
            name='ground_depth_m',
            field=models.FloatField(default=0.0),
        ),
        migrations.AddField(
            model_name='assembly',
            name='ground_perimeter_m',
            field=models.FloatField(null=True),
        ),
        migrations.AddField(
            model_name='assembly',
            name='ground_procedure',
            field=models.CharField(default='declared', max_length=16),
        ),
        migrations.AddField(
            model_name='assembly',
            name='ground_wall_m',
            field=models.FloatField(default=0.3),
        ),
        migrations.AddField(
            model_name='assembly',
            name='mass_class',
            field=models.CharField(default='medium', max_length=12),
        ),
        migrations.AddField(
            model_name='assembly',
            name='mass_place',
            field=models.CharField(default='spread', max_length=12),
        ),
        migrations.AddField(
            model_name='assembly',
            name='perimeter_factor_w_mk',
            field=models.FloatField(null=True),
        ),
        migrations.AddField(
            model_name='designmonth',
            name='ground_reflectance',
            field=models.FloatField(null=True),
        ),
        migrations.AddField(
            model_name='designmonth',
            name='ground_temperature_c',
            field=models.FloatField(null=True),
        ),
        migrations.AddField(
            model_name='glazing',
            name='basis',
            field=models.CharField(default='whole', max_length=12),
        ),
        migrations.AddField(
            model_name='glazing',
            name='blind',
            field=models.CharField(default='none', max_length=12),
        ),
        migrations.AddField(
            model_name='glazing',
            name='blind_air_share',
            field=models.FloatField(default=0.4),
        ),
        migrations.AddField(
            model_name='glazing',
            name='blind_factor',
            field=models.FloatField(default=0.5),
        ),
        migrations.AddField(
            model_name='glazing',
            name='blind_rule',
            field=models.CharField(default='irradiance', max_length=12),
        ),
        migrations.AddField(
            model_name='glazing',
            name='blind_schedule',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='projects.schedule'),
        ),
        migrations.AddField(
            model_name='glazing',
            name='blind_threshold_w_m2',
            field=models.FloatField(default=200.0),
        ),
        migrations.AddField(
            model_name='glazing',
            name='build_up',
            field=models.JSONField(default=list),
        ),
        migrations.AddField(
            model_name='glazing',
            name='centre_u_value',
            field=models.FloatField(default=1.1),
        ),
        migrations.AddField(
            model_name='glazing',
            name='edge_psi_w_mk',
            field=models.FloatField(default=0.06),
        ),
        migrations.AddField(
            model_name='glazing',
            name='frame_u_value',
            field=models.FloatField(default=1.4),
        ),
        migrations.AddField(
            model_name='layer',
            name='bridge_material',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='projects.material'),
        ),
        migrations.AddField(
            model_name='layer',
            name='bridge_share',
            field=models.FloatField(default=0.0),
        ),
        migrations.AddField(
            model_name='material',
            name='air_gap',
            field=models.BooleanField(default=False),
        ),
        migrations.AddField(
            model_name='material',
            name='source',
            field=models.CharField(default='', max_length=200),
        ),
        migrations.AddField(
            model_name='material',
            name='vapour_factor',
            field=models.FloatField(null=True),
        ),
        migrations.AddField(
            model_name='project',
            name='cooling_margin',
            field=models.FloatField(default=0.0),
        ),
        migrations.AddField(
            model_name='project',
            name='heating_margin',
            field=models.FloatField(default=0.0),
        ),
        migrations.AddField(
            model_name='project',
            name='heating_procedure',
            field=models.CharField(default='balance', max_length=12),
        ),
        migrations.AddField(
            model_name='project',
            name='holidays',
            field=models.JSONField(default=list),
        ),
        migrations.AddField(
            model_name='project',
            name='units',
            field=models.CharField(default='SI', max_length=2),
        ),
        migrations.AddField(
            model_name='project',
            name='ventilation',
            field=models.CharField(default='62.1 full', max_length=20),
        ),
        migrations.AddField(
            model_name='project',
            name='year',
            field=models.PositiveSmallIntegerField(default=2027),
        ),
        migrations.AddField(
            model_name='schedule',
            name='base',
            field=models.CharField(default='a', max_length=12),
        ),
        migrations.AddField(
            model_name='schedule',
            name='patterns',
            field=models.JSONField(default=list),
        ),
        migrations.AddField(
            model_name='schedule',
            name='rules',
            field=models.JSONField(default=list),
        ),
        migrations.AddField(
            model_name='schedule',
            name='summer',
            field=models.CharField(max_length=12, null=True),
        ),
        migrations.AddField(
            model_name='schedule',
            name='summer_by_month',
            field=models.BooleanField(default=False),
        ),
        migrations.AddField(
            model_name='schedule',
            name='winter',
            field=models.CharField(max_length=12, null=True),
        ),
        migrations.AddField(
            model_name='site',
            name='air_amplitude_k',
            field=models.FloatField(default=10.0),
        ),
        migrations.AddField(
            model_name='site',
            name='air_mean_c',
            field=models.FloatField(default=10.0),
        ),
        migrations.AddField(
            model_name='site',
            name='cold_water_c',
            field=models.FloatField(default=10.0),
        ),
        migrations.AddField(
            model_name='site',
            name='coldest_month',
            field=models.PositiveSmallIntegerField(default=1),
        ),
        migrations.AddField(
            model_name='site',
            name='dehumidification_dew_point_c',
            field=models.FloatField(null=True),
        ),
        migrations.AddField(
            model_name='site',
            name='dehumidification_dry_bulb_c',
            field=models.FloatField(null=True),
        ),
        migrations.AddField(
            model_name='site',
            name='dehumidification_month',
            field=models.PositiveSmallIntegerField(null=True),
        ),
        migrations.AddField(
            model_name='site',
            name='ground_depth_m',
            field=models.FloatField(default=1.0),
        ),
        migrations.AddField(
            model_name='site',
            name='ground_source',
            field=models.CharField(default='constant', max_length=12),
        ),
        migrations.AddField(
            model_name='site',
            name='indoor_winter_humidity',
            field=models.FloatField(default=0.45),
        ),
        migrations.AddField(
            model_name='site',
            name='saving_from',
            field=models.CharField(max_length=5, null=True),
        ),
        migrations.AddField(
            model_name='site',
            name='saving_to',
            field=models.CharField(max_length=5, null=True),
        ),
        migrations.AddField(
            model_name='site',
            name='shelter_class',
            field=models.PositiveSmallIntegerField(default=3),
        ),
        migrations.AddField(
            model_name='site',
            name='skyline',
            field=models.JSONField(default=list),
        ),
        migrations.AddField(
            model_name='site',
            name='soil',
            field=models.CharField(default='sand', max_length=8),
        ),
        migrations.AddField(
            model_name='site',
            name='summer_wind_m_s',
            field=models.FloatField(default=3.0),
        ),
        migrations.AddField(
            model_name='site',
            name='terrain',
            field=models.CharField(default='suburb', max_length=20),
        ),
        migrations.AddField(
            model_name='site',
            name='winter_wind_m_s',
            field=models.FloatField(default=4.0),
        ),
        migrations.AddField(
            model_name='surface',
            name='exposed_perimeter_m',
            field=models.FloatField(null=True),
        ),
        migrations.AddField(
            model_name='surface',
            name='temperature_schedule',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='projects.schedule'),
        ),
        migrations.AddField(
            model_name='use',
            name='activity',
            field=models.CharField(max_length=40, null=True),
        ),
        migrations.AddField(
            model_name='use',
            name='equipment_basis',
            field=models.CharField(default='w_m2', max_length=16),
        ),
        migrations.AddField(
            model_name='use',
            name='hot_water_c',
            field=models.FloatField(default=55.0),
        ),
        migrations.AddField(
            model_name='use',
            name='hot_water_l_m2_day',
            field=models.FloatField(default=0.0),
        ),
        migrations.AddField(
            model_name='use',
            name='hot_water_l_person_day',
            field=models.FloatField(default=0.0),
        ),
        migrations.AddField(
            model_name='use',
            name='infiltration_basis',
            field=models.CharField(default='air_changes', max_length=16),
        ),
        migrations.AddField(
            model_name='use',
            name='infiltration_m3_s_m2',
            field=models.FloatField(default=0.0),
        ),
        migrations.AddField(
            model_name='use',
            name='leakage_cm2_m2',
            field=models.FloatField(default=1.0),
        ),
        migrations.AddField(
            model_name='use',
            name='lights_basis',
            field=models.CharField(default='w_m2', max_length=16),
        ),
        migrations.AddField(
            model_name='use',
            name='people_basis',
            field=models.CharField(default='per_m2', max_length=16),
        ),
        migrations.AddField(
            model_name='use',
            name='person_schedule',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='projects.schedule'),
        ),
        migrations.AddField(
            model_name='use',
            name='task_lights_schedule',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='projects.schedule'),
        ),
        migrations.AddField(
            model_name='use',
            name='task_lights_w_m2',
            field=models.FloatField(default=0.0),
        ),
        migrations.CreateModel(
            name='Shading',
            fields=[
                ('id', models.CharField(max_length=40, primary_key=True, serialize=False)),
                ('name', models.CharField(max_length=120)),
                ('overhang_m', models.FloatField(default=0.0)),
                ('overhang_gap_m', models.FloatField(default=0.0)),
                ('overhang_beyond_m', models.FloatField(default=0.0)),
                ('left_fin_m', models.FloatField(default=0.0)),
                ('right_fin_m', models.FloatField(default=0.0)),
                ('fin_gap_m', models.FloatField(default=0.0)),
                ('fin_beyond_m', models.FloatField(default=0.0)),
                ('reveal_m', models.FloatField(default=0.0)),
                ('project', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='projects.project')),
            ],
            options={
                'abstract': False,
            },
        ),
        migrations.AddField(
            model_name='opening',
            name='shading',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='projects.shading'),
        ),
        migrations.CreateModel(
            name='UseItem',
            fields=[
                ('id', models.CharField(max_length=40, primary_key=True, serialize=False)),
                ('position', models.FloatField(default=0.0)),
                ('name', models.CharField(max_length=120)),
                ('basis', models.CharField(max_length=16)),
                ('value', models.FloatField()),
                ('count', models.FloatField(default=1.0)),
                ('usage_factor', models.FloatField(default=1.0)),
                ('radiant_share', models.FloatField(default=0.3)),
                ('latent_share', models.FloatField(default=0.0)),
                ('vented_share', models.FloatField(default=0.0)),
                ('project', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='projects.project')),
                ('schedule', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='+', to='projects.schedule')),
                ('use', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='items', to='projects.use')),
            ],
            options={
                'abstract': False,
            },
        ),
        migrations.CreateModel(
            name='WeatherFile',
            fields=[
                ('id', models.CharField(max_length=40, primary_key=True, serialize=False)),
                ('name', models.CharField(max_length=120)),
                ('imported', models.DateTimeField(auto_now_add=True)),
                ('about', models.JSONField()),
                ('hours', models.BinaryField()),
                ('project', models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name='weather', to='projects.project')),
            ],
        ),
        migrations.CreateModel(
            name='WeatherMapping',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('name', models.CharField(max_length=120)),
                ('mapping', models.JSONField()),
                ('owner', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to=settings.AUTH_USER_MODEL)),
            ],
            options={
                'constraints': [models.UniqueConstraint(fields=('owner', 'name'), name='one_mapping_per_name')],
            },
        ),
        migrations.RunPython(plans_from_patterns, migrations.RunPython.noop),
        migrations.RemoveField(
            model_name='schedule',
            name='weekday',
        ),
        migrations.RemoveField(
            model_name='schedule',
            name='weekend',
        ),
    ]
