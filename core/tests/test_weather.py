"""Weather files: the solar library's own TMY3 samples, odd layouts, refusals; design conditions from known years."""

import unittest
from dataclasses import replace
from pathlib import Path

import numpy as np
import pandas as pd
import pvlib
from pvlib.irradiance import get_extra_radiation

from pendrum_core.sun.irradiance import clear_sky
from pendrum_core.sun.position import SunPosition
from pendrum_core.weather.delimited import Column, Location, Mapping, read_delimited
from pendrum_core.weather.derive import clear_sky_depths, coincident, derive_conditions
from pendrum_core.weather.sun_hours import sun_at_hours
from pendrum_core.weather.tmy3 import looks_like_tmy3, read_tmy3_text
from pendrum_core.weather.year import WeatherYear

SAMPLES = Path(pvlib.__file__).parent / "data"
AT = Location(46.0, 10.0, 1.0, 150.0)


def odd_file(rows: int = 8760) -> str:
    """Semicolons, decimal commas, Fahrenheit, dew point, kilojoules, three header lines."""
    lines = ["Station Mill Hill", "hour ending", "Datum;h;T [F];Td [F];G [kJ/m2h];v [km/h]"]
    for hour in range(rows):
        t = 50.0 + 20.0 * np.sin(2 * np.pi * (hour % 24 - 9) / 24)
        g = max(0.0, 3000.0 * np.sin(np.pi * (hour % 24 - 6) / 12)) if 6 <= hour % 24 < 18 else 0.0
        lines.append(f"{hour // 24 + 1};{hour % 24 + 1};{t:.2f};{t - 9:.2f};{g:.1f};18,0".replace(".", ","))
    return "\n".join(lines)


def odd_mapping(**changes: object) -> Mapping:
    values = {
        "delimiter": ";", "decimal": ",", "header_rows": 3, "convention": "hour ending", "year": 2027, "time": 1,
        "columns": {"dry_bulb": Column(2, "°F"), "dew_point": Column(3, "°F"), "global": Column(4, "kJ/m²h"),
                    "wind": Column(5, "km/h")},
    } | changes  # fmt: skip
    return Mapping(**values)  # type: ignore[arg-type]


class Tmy3(unittest.TestCase):
    def test_the_library_s_stations(self) -> None:
        """Both stations that the solar library ships, against their own columns read by another reader."""
        for name, place in (("723170TYA.CSV", (36.1, -5.0, 273.0)), ("703165TY.csv", (55.317, -9.0, 7.0))):
            text = (SAMPLES / name).read_text(encoding="latin-1")
            self.assertTrue(looks_like_tmy3(text))
            year = read_tmy3_text(text).year
            assert year is not None
            raw = pd.read_csv(SAMPLES / name, header=1)
            np.testing.assert_allclose(year.dry_bulb_c, raw["Dry-bulb (C)"])
            np.testing.assert_allclose(year.relative_humidity, raw["RHum (%)"] / 100)
            np.testing.assert_allclose(year.global_w_m2, raw["GHI (W/m^2)"])
            # Humidity is given in whole per cent, and hours where months were joined do not fit their own dew point.
            moist = raw["Dew-point (C)"] > 2
            off = np.abs(year.dew_point_c - raw["Dew-point (C)"])[moist]
            self.assertLess(float(np.quantile(off, 0.99)), 0.4)
            self.assertEqual((year.latitude_deg, year.utc_offset_h, year.elevation_m), place)
            # The file's own pressure belongs to its elevation, but for the weather.
            standard = 101_325 * (1 - 2.25577e-5 * place[2]) ** 5.2559
            self.assertAlmostEqual(float(year.pressure_pa.mean()), standard, delta=1_500)

    def test_a_station_with_little_sun_in_winter(self) -> None:
        """At 55° north December's sun is too low for a fit of the optical depths; nothing is invented then."""
        year = read_tmy3_text((SAMPLES / "703165TY.csv").read_text(encoding="latin-1")).year
        assert year is not None
        found = derive_conditions(year, 1.0)
        self.assertIsNone(found.months[11].tau_b)
        self.assertIsNotNone(found.months[5].tau_b)
        for month in found.months:
            self.assertLess(month.wet_bulb_c, month.dry_bulb_c)

    def test_design_conditions_of_the_sample(self) -> None:
        """Percentiles counted by hand on the file's own columns."""
        year = read_tmy3_text((SAMPLES / "723170TYA.CSV").read_text(encoding="latin-1")).year
        assert year is not None
        found = derive_conditions(year, 0.4)
        raw = pd.read_csv(SAMPLES / "723170TYA.CSV", header=1)
        july = raw["Dry-bulb (C)"][raw["Date (MM/DD/YYYY)"].str.startswith("07/")].to_numpy()
        self.assertLessEqual((july > found.months[6].dry_bulb_c).sum(), 0.004 * len(july) + 1)
        self.assertLessEqual((raw["Dry-bulb (C)"] < found.heating_c[0]).sum(), 0.004 * 8760 + 1)
        for month in found.months:
            self.assertLess(month.wet_bulb_c, month.dry_bulb_c)
            self.assertIsNotNone(month.tau_b)
        self.assertEqual(found.coldest_month, int(np.argmin(found.monthly_mean_c)) + 1)
        # The sun's noon in July of this station, by the same model with the derived depths, is that of its clear hours.
        elevation, e0 = sun_at_hours(2023, 8760, 36.1, -79.95, -5.0)
        hour = (181 + 14) * 24 + 12
        sun = SunPosition(elevation[None, hour : hour + 1], np.zeros((1, 1)), e0[hour : hour + 1])
        july_sky = clear_sky(sun, np.array([found.months[6].tau_b]), np.array([found.months[6].tau_d]))
        clearest = np.sort(raw["DNI (W/m^2)"].to_numpy()[181 * 24 : 212 * 24])[-8:].mean()
        self.assertAlmostEqual(float(july_sky.beam_normal[0, 0]) / clearest, 1.0, delta=0.12)

    def test_a_broken_file_imports_nothing(self) -> None:
        text = (SAMPLES / "723170TYA.CSV").read_text(encoding="latin-1")
        short = "\n".join(text.splitlines()[:4000])
        self.assertIn("3998 hours", read_tmy3_text(short).faults[0].message)
        self.assertIsNone(read_tmy3_text(short).year)
        self.assertIsNone(read_tmy3_text("nothing\nof the kind").year)

    def test_a_value_that_cannot_be_is_named_by_its_line(self) -> None:
        lines = (SAMPLES / "723170TYA.CSV").read_text(encoding="latin-1").splitlines()
        column = lines[1].split(",").index("Dry-bulb (C)")
        cells = lines[1000].split(",")
        cells[column] = "99.0"
        lines[1000] = ",".join(cells)
        reading = read_tmy3_text("\n".join(lines))
        self.assertIsNone(reading.year)
        self.assertEqual([fault.line for fault in reading.faults], [1001])  # lines count from 1
        self.assertIn("99 cannot be", reading.faults[0].message)
        self.assertFalse(looks_like_tmy3("a,b\n1,2"))


class Delimited(unittest.TestCase):
    def test_an_odd_layout(self) -> None:
        reading = read_delimited(odd_file(), odd_mapping(), AT)
        self.assertEqual(reading.faults, [])
        year = reading.year
        assert year is not None
        # 70 °F at 15:00 of the profile is 21.11 °C; 61 °F of dew point 16.11 °C.
        self.assertAlmostEqual(float(year.dry_bulb_c.max()), 21.111, places=3)
        self.assertAlmostEqual(float(year.dew_point_c[15]), 16.111, delta=0.05)
        self.assertAlmostEqual(float(year.global_w_m2.max()), 3000 / 3.6, delta=1.0)
        self.assertAlmostEqual(float(year.wind_m_s[0]), 5.0)
        self.assertTrue(any("Erbs" in note for note in year.notes))
        up = np.sin(np.radians(np.maximum(sun_at_hours(2027, 8760, 46.0, 10.0, 1.0)[0], 0.0)))
        lit = up > 0.2
        both = year.beam_w_m2 * up + year.diffuse_w_m2
        np.testing.assert_allclose(both[lit], year.global_w_m2[lit], rtol=0.02, atol=2.0)

    def test_every_fault_names_its_line_and_nothing_is_imported(self) -> None:
        lines = odd_file().splitlines()
        lines[10] = lines[10].replace(lines[10].split(";")[2], "many")
        lines[20] = ";".join([*lines[20].split(";")[:2], "400,0", *lines[20].split(";")[3:]])
        lines[30] = "31;x"
        reading = read_delimited("\n".join(lines), odd_mapping(time=None), AT)
        self.assertIsNone(reading.year)
        found = {fault.line: fault.message for fault in reading.faults}
        self.assertIn("'many' is not a number", found[11])
        self.assertIn("400,0 °F cannot be", found[21])
        self.assertIn("the line has 2 columns", found[31])

    def test_missing_hours_are_found_where_they_are(self) -> None:
        lines = odd_file().splitlines()
        del lines[103:106]
        reading = read_delimited("\n".join(lines), odd_mapping(), AT)
        self.assertIsNone(reading.year)
        self.assertIn("8757 hours", reading.faults[0].message)
        self.assertEqual(reading.faults[1].line, 104)
        self.assertIn("hours are missing", reading.faults[1].message)

    def test_a_mapping_without_what_is_needed(self) -> None:
        reading = read_delimited(odd_file(), odd_mapping(columns={"wind": Column(5, "furlongs")}), AT)
        told = " ".join(fault.message for fault in reading.faults)
        for word in ("dry-bulb", "humidity", "sun", "furlongs"):
            self.assertIn(word, told)

    def test_no_value_by_its_mark(self) -> None:
        lines = odd_file().splitlines()
        lines[50] = lines[50].rsplit(";", 1)[0] + ";-99"
        reading = read_delimited("\n".join(lines), odd_mapping(missing="-99"), AT)
        self.assertEqual([(f.line, f.message) for f in reading.faults], [(51, "wind: no value")])

    def test_instants_are_averaged_with_the_next(self) -> None:
        plain = read_delimited(odd_file(), odd_mapping(), AT).year
        # Half an hour earlier is the sun of a place 7.5° further east; near the equator its days are those of the file.
        east = replace(AT, latitude_deg=5.0, longitude_deg=AT.longitude_deg + 7.5)
        instant = read_delimited(odd_file(), odd_mapping(convention="instant"), east).year
        assert plain is not None and instant is not None
        np.testing.assert_allclose(instant.dry_bulb_c, (plain.dry_bulb_c + np.roll(plain.dry_bulb_c, -1)) / 2)


class OutOfPlace(unittest.TestCase):
    """A real year with something wrong that every single value hides (the file ships with the solar library)."""

    @classmethod
    def setUpClass(cls) -> None:
        year = read_tmy3_text((SAMPLES / "723170TYA.CSV").read_text(encoding="latin-1")).year
        assert year is not None
        cls.year = year

    def text(self, order: np.ndarray | None = None, header: str = "date,time,dry,rh,sun") -> str:
        order = np.arange(8760) if order is None else order
        days = np.datetime64("2023-01-01T00") + np.arange(8760).astype("timedelta64[h]")
        lines = [header]
        for hour in order:
            stamp = str(days[hour])
            lines.append(f"{stamp[:10]},{stamp[11:13]}:00,{self.year.dry_bulb_c[hour]:.1f},"
                         f"{self.year.relative_humidity[hour]:.2f},{self.year.global_w_m2[hour]:.0f}")  # fmt: skip
        return "\n".join(lines)

    def read(self, text: str, place: Location | None = None, **changes: object) -> str:
        """The faults that are told; empty where the file is taken."""
        columns = {"dry_bulb": Column(2, "°C"), "relative_humidity": Column(3, "fraction"), "global": Column(4, "W/m²")}
        mapping = Mapping(",", ".", 1, columns, "hour beginning", 2023, time=1, **changes)
        at = place or Location(
            self.year.latitude_deg, self.year.longitude_deg, self.year.utc_offset_h, self.year.elevation_m
        )
        found = read_delimited(text, mapping, at)
        self.assertEqual(found.year is None, bool(found.faults))
        return " ".join(f"{fault.line}: {fault.message}" for fault in found.faults)

    def test_as_it_is(self) -> None:
        self.assertEqual(self.read(self.text()), "")
        self.assertEqual(self.read(self.text(), date=0), "")

    def test_stamps_in_utc(self) -> None:
        self.assertIn("5 h after", self.moved(np.roll(np.arange(8760), 5)))

    def moved(self, order: np.ndarray, **changes: object) -> str:
        """The year's values in another order under stamps that run evenly."""
        text = self.text().splitlines()
        body = [line.split(",", 2) for line in text[1:]]
        lines = [f"{body[i][0]},{body[i][1]},{body[order[i]][2]}" for i in range(8760)]
        return self.read("\n".join([text[0], *lines]), **changes)

    def test_a_year_that_begins_in_july(self) -> None:
        order = np.roll(np.arange(8760), -181 * 24)
        self.assertIn("long when they should be short", self.moved(order))
        # With its dates it is put in order.
        self.assertEqual(self.read(self.text(order), date=0), "")

    def test_the_other_hemisphere_and_another_longitude(self) -> None:
        south = Location(-self.year.latitude_deg, self.year.longitude_deg, self.year.utc_offset_h, 100.0)
        self.assertIn("hemisphere", self.read(self.text(), south))
        east = Location(self.year.latitude_deg, self.year.longitude_deg + 45.0, self.year.utc_offset_h, 100.0)
        self.assertIn("3 h after", self.read(self.text(), east))

    def test_one_hour_missing_and_one_double(self) -> None:
        order = np.concatenate([np.arange(2000), np.arange(2001, 7000), [6999], np.arange(7000, 8760)])
        lines = self.read(self.text(order))
        self.assertIn("missing or double", lines)
        dated = self.read(self.text(order), date=0)
        self.assertIn("stands in line", dated)
        self.assertIn("lacks", dated)

    def test_dates_as_others_write_them(self) -> None:
        text = self.text().splitlines()
        for form in ("{d}.{m}.{y}", "{m}/{d}/{y}", "{d}-{m}-{y}"):
            lines = [text[0]]
            for line in text[1:]:
                y, m, d = line[:10].split("-")
                lines.append(form.format(y=y, m=m, d=d) + line[10:])
            self.assertEqual(self.read("\n".join(lines), date=0), "", form)


class Derived(unittest.TestCase):
    def test_irradiance_above_the_atmosphere_by_another_formula(self) -> None:
        """Spencer's series for the earth's distance."""
        e0 = sun_at_hours(2027, 8760, 46.0, 10.0, 1.0)[1]
        days = pd.date_range("2027-01-01", periods=8760, freq="h")
        other = get_extra_radiation(days, solar_constant=1367.0, method="spencer").to_numpy()
        np.testing.assert_allclose(e0, other, rtol=0.003)
        self.assertLess(int(np.argmax(e0)) // 24, 7)  # nearest to the sun early in January

    def test_optical_depths_of_a_made_sky_are_found_again(self) -> None:
        elevation, e0 = sun_at_hours(2027, 8760, 46.0, 10.0, 1.0)
        high = elevation > 20.0
        sun = SunPosition(elevation[high][:, None], np.zeros((int(high.sum()), 1)), e0[high])
        for tau_b, tau_d in ((0.30, 2.5), (0.45, 2.1), (0.60, 1.8)):
            sky = clear_sky(sun, np.full(int(high.sum()), tau_b), np.full(int(high.sum()), tau_d))
            found = clear_sky_depths(sky.beam_normal[:, 0], sky.diffuse_horizontal[:, 0], elevation[high], e0[high])
            self.assertAlmostEqual(found[0], tau_b, places=4)
            self.assertAlmostEqual(found[1], tau_d, places=4)

    def test_a_year_whose_answers_are_known(self) -> None:
        """Each day swings by 10 K about its month's mean; five per cent and one in a thousand can be counted."""
        means = np.array([0, 2, 6, 10, 15, 19, 22, 21, 17, 11, 6, 1], dtype=float)
        month = np.repeat(np.arange(12), np.array([31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31]) * 24)
        hour = np.arange(8760) % 24
        dry = means[month] - 5.0 * np.cos(2 * np.pi * (hour - 3) / 24)
        flat = np.full(8760, 0.5)
        zero = np.zeros(8760)
        year = WeatherYear(2027, 46.0, 10.0, 1.0, 150.0, dry, flat, zero + 99_500.0, zero + 3.0, zero, zero, zero)
        found = derive_conditions(year)
        self.assertAlmostEqual(found.mean_c, float(means.mean()), places=6)
        self.assertAlmostEqual(found.amplitude_k, 11.0, places=6)
        self.assertEqual(found.coldest_month, 1)
        for index, row in enumerate(found.months):
            self.assertAlmostEqual(row.dry_bulb_c, means[index] + 5.0, delta=0.2)
            self.assertAlmostEqual(row.range_k, 10.0, delta=0.2)
            self.assertIsNone(row.tau_b)
        self.assertAlmostEqual(found.heating_c[0], -5.0, delta=0.2)
        self.assertEqual(found.winter_wind_m_s, 3.0)

    def test_coincident_means(self) -> None:
        of = np.array([10.0, 20.0, 20.4, 19.6, 20.1, 20.2, 30.0])
        values = np.array([0.0, 1.0, 2.0, 3.0, 4.0, 5.0, 100.0])
        self.assertAlmostEqual(coincident(values, of, 20.0), 3.0)
