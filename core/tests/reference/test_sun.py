"""Sun position, clear sky and planes against the reference case, and against the solar library's own transposition."""

import unittest

import numpy as np
from pvlib.irradiance import aoi_projection

from pendrum_core.proof.cases import load_case
from pendrum_core.sun.irradiance import clear_sky, incidence_cosine, on_plane
from pendrum_core.sun.position import sun_position


class MidLatitude(unittest.TestCase):
    def setUp(self) -> None:
        self.case = load_case("sun_mid_latitude")
        inputs = self.case["inputs"]
        site = inputs["site"]
        self.months = tuple(sorted(int(m) for m in inputs["tau"]))
        self.hours = tuple(inputs["hours"])
        self.sun = sun_position(
            site["latitude_deg"], site["longitude_deg"], site["time_zone_h"], self.months, self.hours
        )
        tau = [inputs["tau"][str(m)] for m in self.months]
        self.sky = clear_sky(self.sun, np.array([t["tau_b"] for t in tau]), np.array([t["tau_d"] for t in tau]))

    def test_every_hour_and_plane(self) -> None:
        planes = {
            name: on_plane(self.sun, self.sky, p["tilt_deg"], p["azimuth_deg"], 0.2)
            for name, p in self.case["inputs"]["planes"].items()
        }
        for row in self.case["expected"]:
            at = self.months.index(row["month"]), self.hours.index(row["hour"])
            self.assertAlmostEqual(self.sun.elevation_deg[at], row["sun_elevation_deg"], delta=0.05)
            off = (self.sun.azimuth_deg[at] - row["sun_azimuth_deg"] + 180) % 360 - 180
            self.assertLess(abs(off), 0.05)
            low = 3.0 if 0 < row["sun_elevation_deg"] < 3 else 1.5

            def near(found: float, want: float, low: float = low, place: object = row["hour"]) -> None:
                self.assertLess(abs(found - want), max(0.005 * abs(want), low), place)

            near(self.sky.beam_normal[at], row["beam_normal_W_m2"])
            near(self.sky.diffuse_horizontal[at], row["diffuse_horizontal_W_m2"])
            for name, want in row["planes"].items():
                near(planes[name].beam[at], want["beam_W_m2"])
                near(planes[name].sky_diffuse[at], want["sky_diffuse_W_m2"])
                near(planes[name].ground_reflected[at], want["ground_reflected_W_m2"])

    def test_incidence_agrees_with_the_solar_library(self) -> None:
        for tilt, azimuth in ((90.0, 200.0), (35.0, 75.0), (150.0, 310.0)):
            ours = incidence_cosine(self.sun, tilt, azimuth)
            theirs = aoi_projection(tilt, azimuth, 90.0 - self.sun.elevation_deg, self.sun.azimuth_deg)
            self.assertLess(np.abs(ours - theirs).max(), 1e-9)
