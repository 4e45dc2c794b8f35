"""The demo's made-up year of hours is a file like any other."""

from accounts.demo import demo_engineer
from calculations.weather import weather_of
from demo.tarnwick import load_tarnwick
from demo.weather import FILE_NAME, load_weather, made_up_hours
from projects.document import load_document
from tests.base import ApiTest


class MadeUpWeather(ApiTest):
    def test_it_is_read_as_a_whole_year_that_suits_the_site(self) -> None:
        project = load_tarnwick(demo_engineer())
        load_weather(project)
        found = weather_of(project, 0.4)
        assert found is not None
        document = load_document(project)
        site, derived = document.one("site"), found["derived"]
        self.assertEqual((found["name"], found["hours"]), (FILE_NAME, 8760))
        self.assertTrue(any("Erbs" in note for note in found["about"]["notes"]))
        self.assertAlmostEqual(derived["mean_c"], site["air_mean_c"], delta=1.0)
        self.assertAlmostEqual(derived["heating_c"][0], site["winter_dry_bulb_c"], delta=6.0)
        months = sorted(document.of("design_month").values(), key=lambda row: row["month"])
        for entered, row in zip(months, derived["months"], strict=True):
            self.assertLess(row["wet_bulb_c"], row["dry_bulb_c"])
            self.assertAlmostEqual(row["dry_bulb_c"], entered["dry_bulb_c"], delta=6.0)
            self.assertIsNotNone(row["tau_b"])

    def test_it_is_the_same_every_time(self) -> None:
        document = load_document(load_tarnwick(demo_engineer()))
        self.assertEqual(made_up_hours(document), made_up_hours(document))
